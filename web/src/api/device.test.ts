import { expect, test } from 'vitest'
import { byItself } from './device'

test('a device is called by the machine and the browser that it says it is', () => {
  const phone =
    'Mozilla/5.0 (Linux; Android 14; K) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/131.0 Mobile Safari/537.36'
  expect(byItself(phone)).toBe('Android, Chrome')
  expect(
    byItself('Mozilla/5.0 (iPhone; CPU iPhone OS 18_1 like Mac OS X) Version/18.1 Mobile Safari/604.1'),
  ).toBe('iPhone, Safari')
  expect(byItself('Mozilla/5.0 (X11; Linux x86_64; rv:133.0) Gecko/20100101 Firefox/133.0')).toBe(
    'Linux, Firefox',
  )
  expect(byItself('something else')).toBe('')
})
