// Shows a sign in a page, for the people who write texts.
export function draw(canvas, rows) {
  const context = canvas.getContext('2d')
  context.fillStyle = '#14110c'
  context.fillRect(0, 0, canvas.width, canvas.height)
  context.fillStyle = '#ffb347'
  context.font = '24px monospace'
  rows.forEach((row, index) => context.fillText(row.slice(0, 32), 12, 36 + 40 * index))
}
