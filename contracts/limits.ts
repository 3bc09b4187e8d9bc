/** A password one can choose: long rather than strange, as the OWASP Authentication Cheat Sheet asks. */
export const SHORTEST_PASSWORD = 10
