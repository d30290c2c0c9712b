// Before the first paint, so that nothing flashes.
{
  const chosen = localStorage.getItem('oddbeacon.theme')
  const night = chosen ? chosen === 'night' : matchMedia('(prefers-color-scheme: dark)').matches
  document.documentElement.dataset.theme = night ? 'night' : 'day'
}
