/** How many times the usual 16 px the browser's default font is: what is drawn beside text grows with it. 1..2. */
export const rem = Math.min(2, Math.max(1, parseFloat(getComputedStyle(document.documentElement).fontSize) / 16))
