/** How long a connection to the database may take to be made, for all that make one. */
export const patience = { connectionTimeoutMillis: 4000 };
