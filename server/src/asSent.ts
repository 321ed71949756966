/** As it travels and is kept: dates as text, what is not said left out. */
export const asSent = (value: unknown): unknown => JSON.parse(JSON.stringify(value))
