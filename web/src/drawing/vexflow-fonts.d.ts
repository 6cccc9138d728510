declare module '*/fonts/bravura.js' {
  export const Bravura: string
}
