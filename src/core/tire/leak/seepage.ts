/** What seeps through sound rubber, kPa a month (common practice: 7 to 14). */
export const seepagePerMonthKPa = { least: 7, most: 14 };
