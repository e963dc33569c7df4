/** How a ray meets what is only looked at: not at all. One function for all, since another one would have the model drawn anew. */
export const unmet = (): null => null;
