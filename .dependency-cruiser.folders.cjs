const { options } = require('./.dependency-cruiser.cjs');

/**
 * Folders stand one above the other; docs/architecture.md draws the order. Tests are left out: one may start the whole
 * server from any folder.
 */
module.exports = {
  forbidden: [
    {
      name: 'no-circles-of-folders',
      severity: 'error',
      scope: 'folder',
      from: { path: '^(core|server|web)/src/' },
      to: { circular: true },
    },
  ],
  options: { ...options, exclude: { path: '(^|/)dist/|\\.(test|spec)\\.ts$|/testing/' } },
};
