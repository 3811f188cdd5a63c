/** Today where the person is, year-month-day: in the evening the day elsewhere is another. */
export const today = (): string => {
  const now = new Date()
  const two = (n: number) => String(n).padStart(2, '0')
  return `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`
}
