// Programs that read TypeScript alone see a component as one of any props; vue-tsc reads the component itself, and checks it.
declare module '*.vue' {
  import type { Component } from 'vue'
  const component: Component<Record<string, unknown>>
  export default component
}
