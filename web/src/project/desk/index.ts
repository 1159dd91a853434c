// The store of the editor, and what is done to it by subject.
export { desk, set, useDesk, type Desk } from './store'
export * from './film'
export * from './looking'
export * from './notices'
export * from './selection'
export * from './storing'
export * from './time'
export * from './tools'
