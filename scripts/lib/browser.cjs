// Debian's Chromium, headless, with nothing of the network asked for.
const { existsSync, mkdtempSync } = require('node:fs')
const { tmpdir } = require('node:os')
const { join } = require('node:path')
const puppeteer = require('puppeteer-core')

const CHROMIUM = [
  process.env.CHROMIUM_PATH,
  '/usr/bin/chromium',
  '/usr/bin/chromium-browser',
  '/usr/bin/google-chrome',
].find(p => p && existsSync(p))

const launch = () =>
  puppeteer.launch({
    executablePath: CHROMIUM,
    headless: true,
    userDataDir: mkdtempSync(join(tmpdir(), 'corvit-chromium-')),
    args: [
      '--no-sandbox',
      '--disable-features=SpareRendererForSitePerProcess,BackForwardCache',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      '--disable-dev-shm-usage',
    ],
  })

module.exports = { CHROMIUM, launch }
