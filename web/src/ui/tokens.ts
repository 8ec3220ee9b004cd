/**
 * Colours of the two themes, checked for contrast (see e2e/accessibility). The same names are CSS variables in
 * globals.css.
 */
export const LIGHT = {
  paper: "#F5F3EC",
  card: "#FFFEFB",
  ink: "#20261F",
  muted: "#5C6257",
  line: "#D8D3C4",
  accent: "#1E6A58",
  rust: "#A8401A",
  tint: "#F7E3D6",
} as const;
export const DARK = {
  paper: "#161A17",
  card: "#1F2521",
  ink: "#ECEBE2",
  muted: "#A9B0A3",
  line: "#3A423B",
  accent: "#6CC3AA",
  rust: "#F0956A",
  tint: "#43281B",
} as const;
export const THEME_COOKIE = "radicula-theme";
