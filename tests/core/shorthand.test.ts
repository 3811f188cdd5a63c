import { parseLine } from '#core'

describe('the breaker line', () => {
  it.each<[string, object, number?]>([
    [
      '7 20 14cu nm porch lights',
      {
        space: 7,
        ratingAmps: 20,
        size: '14',
        metal: 'copper',
        wiring: 'NM',
        label: 'porch lights',
        supplies: 'lighting',
      },
    ],
    [
      '5 20 12-3cu nm-b with 9 untied counter left',
      {
        space: 5,
        ratingAmps: 20,
        size: '12',
        conductors: 3,
        metal: 'copper',
        wiring: 'NM-B',
        sharesWith: 9,
        handleTie: 'not tied',
        label: 'counter left',
      },
    ],
    [
      '2 2p 60 4al se feeder',
      {
        space: 2,
        poles: 2,
        ratingAmps: 60,
        size: '4',
        metal: 'aluminum',
        wiring: 'SE',
        role: 'feeder',
      },
    ],
    ['28 15 spare', { space: 28, ratingAmps: 15, role: 'spare' }],
    ['7b 15 14 cu', { space: 7, half: 'b', ratingAmps: 15, size: '14', metal: 'copper' }],
    [
      '3 20 12 cca gfci bath',
      {
        space: 3,
        ratingAmps: 20,
        size: '12',
        metal: 'copper-clad aluminum',
        protection: 'GFCI',
        label: 'bath',
      },
    ],
    ['20 14cu nm lights', { ratingAmps: 20, size: '14', metal: 'copper' }, 7],
    ['20 12 cu', { ratingAmps: 20, size: '12', metal: 'copper' }, 7],
    ['9 20 12cu', { space: 9, ratingAmps: 20, size: '12' }, 7],
    ['1 100 1/0al', { space: 1, ratingAmps: 100, size: '1/0', metal: 'aluminum' }],
    ['4 15 14cu bedroom 2 outlets', { label: 'bedroom 2 outlets' }],
  ])('%s', (text, line, ...[space]) => {
    const parsed = parseLine(text, space)
    expect(parsed.pieces.every(p => p.isRead)).toBe(true)
    expect(parsed.line).toMatchObject(line)
  })
  it.each(['7 20 13cu lights', '7 2000', '7 20 14cuu'])('says what it cannot read: %s', text => {
    expect(parseLine(text).pieces.some(p => !p.isRead)).toBe(true)
  })
  it('never guesses a space', () => {
    expect(parseLine('gfci kitchen').line.space).toBeUndefined()
    expect(parseLine('', 3)).toEqual({ line: {}, pieces: [] })
  })
  it('takes markup as a name and nothing else', () => {
    expect(parseLine(`7 20 <img src=x onerror=alert(1)> '; drop table jobs;--`).line.label).toBe(
      `<img src=x onerror=alert(1)> '; drop table jobs;--`,
    )
  })
})
