declare const lib: {
  CHROMIUM: string | undefined
  launch: () => Promise<import('puppeteer-core').Browser>
}
export = lib
