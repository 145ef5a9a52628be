/** The typeface of charts: they are drawn, and inherit none from the page. */
export const chartFont = 'Atkinson Hyperlegible Next Variable, sans-serif'
