/** A thing without some of its fields: of what is kept, the part that is edited. A new field comes along by itself. */
export function without<T extends object, K extends PropertyKey>(of: T, ...fields: K[]): Omit<T, K> {
  const rest = { ...of } as Record<PropertyKey, unknown>
  for (const f of fields) delete rest[f]
  return rest as Omit<T, K>
}
