export * from './gauge.js'
export { default as Meter } from './gauge'
export * as tides from '../tide'
