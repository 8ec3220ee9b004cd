/** In every answer of ours: which database answered. A page knows by it that nobody else did. */
export const DATABASE_HEADER = "Radicula-Database";
