/** The signed report behind a link, the very file that was made when it was signed. */
export default defineEventHandler(async event => {
  const { job, signed } = await requireLink(event)
  if (!signed) throw refuse('no-route', 'Nobody has signed this report yet')
  sendAs(event, 'application/pdf', `${fileName(job.name)}-${signed.name}.pdf`)
  return signed.pdf
})
