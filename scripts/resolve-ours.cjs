// Where an import leads, for the lint of walls: our own aliases and files; packages by name.
const { existsSync, statSync } = require('node:fs');
const { dirname, join, resolve } = require('node:path');

const root = resolve(module.path, '..');
const isFile = (path) => existsSync(path) && statSync(path).isFile();

exports.interfaceVersion = 2;
exports.resolve = (name, from) => {
  const alias = /^@(core|app|demo)\/(.*)$/.exec(name);
  const path = alias ? join(root, alias[1], alias[2]) : name.startsWith('.') && resolve(dirname(from), name);
  if (!path) {
    try {
      return { found: true, path: require.resolve(name, { paths: [dirname(from)] }) };
    } catch {
      return { found: true, path: null };
    }
  }
  const found = [path, `${path}.ts`, `${path}.json`, `${path}.mjs`].find(isFile);
  return found ? { found: true, path: found } : { found: false };
};
