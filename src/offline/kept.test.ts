import { type Asked, answerTo, type Build } from './kept';

const HERE = 'http://localhost:3000';
const BUILD: Build = {
  name: 'b',
  files: {
    '/': 'sha256-1',
    '/?_rsc': 'sha256-2',
    '/sales': 'sha256-3',
    '/sales?_rsc': 'sha256-4',
    '/sales/doc': 'sha256-5',
    '/sales/doc?_rsc': 'sha256-6',
    '/receipts/new': 'sha256-7',
    '/receipts/new?_rsc': 'sha256-8',
    '/receipts/one': 'sha256-9',
    '/receipts/one?_rsc': 'sha256-a',
    '/_not-found': 'sha256-b',
    '/_not-found?_rsc': 'sha256-c',
    '/_next/static/chunks/a1.js': 'sha256-d',
    '/icon.svg': 'sha256-e',
  },
  rewrites: [
    ['^/sales/doc(?:/([^/]+?))(?:/)?$', '/sales/doc'],
    ['^/receipts(?:/([^/]+?))(?:/)?$', '/receipts/one'],
  ],
};

const asked = (over: Partial<Omit<Asked, 'header'>>, headers: Readonly<Record<string, string>> = {}): Asked => ({
  method: 'GET',
  origin: HERE,
  path: '/sales',
  navigates: false,
  ...over,
  header: (name) => headers[name] ?? null,
});
const opened = (path: string) => answerTo(asked({ path, navigates: true }), HERE, BUILD);
const kept = (address: string) => ({ from: 'kept', address });

describe('what is kept answers', () => {
  test.each([
    ['a page', '/sales', '/sales'],
    ['a page with a slash behind it', '/sales/', '/sales'],
    ['the first page', '/', '/'],
    ['a document made since, by the page of all documents', '/sales/doc/7f-9', '/sales/doc'],
    ['a receipt, and the page for a new one', '/receipts/r1', '/receipts/one'],
    ['a page that comes before a pattern', '/receipts/new', '/receipts/new'],
    ['an address that names nothing', '/nowhere/at/all', '/_not-found'],
    ['a file that is opened by itself', '/icon.svg', '/icon.svg'],
  ])('%s', (_, path, address) => expect(opened(path)).toEqual(kept(address)));

  test('the router that goes to a page', () => {
    const router = answerTo(asked({ path: '/sales/doc/x' }, { rsc: '1' }), HERE, BUILD);
    expect(router).toEqual(kept('/sales/doc?_rsc'));
  });
  test('built files of this build, and those of earlier ones for windows that are still open', () => {
    const file = (path: string) => answerTo(asked({ path }), HERE, BUILD);
    expect(file('/_next/static/chunks/a1.js')).toEqual(kept('/_next/static/chunks/a1.js'));
    expect(file('/_next/static/chunks/b2.js')).toEqual({ from: 'earlier', address: '/_next/static/chunks/b2.js' });
  });
  test('what is fetched ahead with nothing', () => {
    expect(answerTo(asked({}, { rsc: '1', 'next-router-prefetch': '1' }), HERE, BUILD)).toEqual({ from: 'nothing' });
  });
});

describe('the network answers', () => {
  test.each([
    ['stand-ins of the outside world', { path: '/standins/rates' }],
    ['what is sent', { method: 'POST', path: '/sales' }],
    ['what belongs elsewhere', { origin: 'http://localhost:4000' }],
    ['files that are none of the app', { path: '/robots.txt' }],
  ])('%s', (_, over) => expect(answerTo(asked(over), HERE, BUILD)).toEqual({ from: 'network' }));
});
