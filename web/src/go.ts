/** Opens a project. */
export const go = (id: string) => {
  history.pushState(null, '', `/p/${id}`)
  window.dispatchEvent(new PopStateEvent('popstate'))
}
