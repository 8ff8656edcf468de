/** The demo's sign-in: it stands nowhere but in demo data. */
export const DEMO_SIGN_IN = { email: 'coach@demo.invalid', password: 'chalk-on-the-ground' }
