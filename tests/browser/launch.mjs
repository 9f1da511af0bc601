// The browser of the tests: Debian's Chromium, without anything that asks the network.
import { chromium } from 'playwright-core';

export const launch = () => chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking',
    '--disable-component-update', '--disable-sync'],
});
