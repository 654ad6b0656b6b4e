// Picks the stylesheet before the first paint, so that a dark desk never flashes white.
(function () {
  var stored = null;
  try {
    stored = localStorage.getItem('hs-theme');
  } catch (_) {
    stored = null;
  }
  var dark = stored ? stored === 'dark' : matchMedia('(prefers-color-scheme: dark)').matches;
  document.documentElement.dataset.theme = dark ? 'dark' : 'light';
  if (dark) document.getElementById('app-theme').setAttribute('href', 'theme-dark.css');
})();
