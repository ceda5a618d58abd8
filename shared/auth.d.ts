declare module '#auth-utils' {
  interface User {
    id: string
    name: string
    email: string
    role: 'member' | 'maker' | 'admin'
  }
  interface SecureSessionData {
    /** What the store knows the session by; never told to scripts. */
    token: string
  }
}
export {}
