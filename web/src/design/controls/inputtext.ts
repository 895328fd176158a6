/** The one place that knows where it comes from; see docs/decisions.md. */
export { default } from 'primevue/inputtext'
