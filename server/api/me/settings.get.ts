/** What one person writes reports with, and what their new jobs begin with. */
export default defineEventHandler(async event => ownSettings(await useDb(), requireAsker(event)))
