export default async function end() {
  await Promise.all((globalThis.browsersOfTests ?? []).map(browser => browser.close()))
}
