/** Standard gravity, m/s² (3rd CGPM, 1901). */
export const STANDARD_GRAVITY = 9.80665
