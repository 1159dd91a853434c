/** The eight row tints: muted hues of equal lightness (OKLCH L 0.74), none of them a pure red, green or yellow. */
export const tints = ['#98a4dc', '#d99a86', '#bdab72', '#85b69a', '#79aed2', '#69b6b8', '#b9a0cf', '#b3ab98']
