import type { Material } from '@/api/client'

type Named = Pick<Material, 'id' | 'name' | 'name_es'>

/** Materials whose names hold every word typed, best matches first; all of them if nothing is typed. */
export function search<T extends Named>(materials: T[], typed: string): T[] {
  const words = plain(typed).split(/\s+/).filter(Boolean)
  if (words.length === 0) return [...materials]
  return materials
    .map((material) => ({ material, rank: rankOf(material, words) }))
    .filter(({ rank }) => rank > 0)
    .sort((a, b) => b.rank - a.rank)
    .map(({ material }) => material)
}

function rankOf({ id, name, name_es }: Named, words: string[]): number {
  const names = [plain(name), plain(name_es), plain(id)]
  let rank = 0
  for (const word of words) {
    if (names.some((text) => text.startsWith(word))) rank += 3
    else if (names.some((text) => text.includes(` ${word}`) || text.includes(`-${word}`))) rank += 2
    else if (names.some((text) => text.includes(word))) rank += 1
    else return 0
  }
  return rank
}

/** Lower case without accents, so that "maiz" finds "maíz". */
function plain(text: string): string {
  return text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase()
}
