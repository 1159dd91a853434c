// The build of the server that this page belongs to: an older page would send commands that mean something else.
let build = ''

/** Notes the server's build; false when it is another one than before. */
export function seeBuild(now: string): boolean {
  const same = build === '' || build === now
  build = now
  return same
}

export const buildSeen = () => build
