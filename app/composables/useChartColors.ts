/** Colors of the page as they are now, for a canvas that cannot read style sheets. */
export function useChartColors() {
  const mode = useColorMode()
  return computed(() => {
    void mode.value
    const style = getComputedStyle(document.documentElement)
    const read = (name: string) => style.getPropertyValue(`--${name}`).trim()
    return {
      ink: read('ink'),
      soft: read('soft'),
      line: read('line'),
      touch: read('touch'),
      tint: read('touch-tint'),
      cool: read('cool'),
      repair: read('repair'),
      upgrade: read('upgrade'),
    }
  })
}
