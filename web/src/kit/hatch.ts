import type { Material } from '@/api/client'
import KEPT from './hatches.json'

/** Families of hatches, each a sign for a look and feel of material. */
export const FAMILIES = [
  'straw',
  'stalk',
  'leaf',
  'grass',
  'tops',
  'dung',
  'pellet',
  'scrap',
  'wood',
  'twig',
  'paper',
  'husk',
  'pulp',
  'meal',
  'fleece',
  'grain',
  'soil',
  'liquid',
] as const
export type Family = (typeof FAMILIES)[number]

/** Materials of one family differ by the turn and the closeness of the same strokes. */
export const VARIANTS = 4

type Traits = Pick<Material, 'id' | 'kind' | 'group' | 'particle'>

/** The family of a material, from what it is and where it comes from. */
export function familyOf({ kind, group, particle }: Traits): Family {
  switch (group) {
    case 'animal manure':
      return particle === 'fine' ? 'dung' : 'pellet'
    case 'bedding':
      return 'dung'
    case 'woody':
      return particle === 'coarse' ? 'wood' : 'twig'
    case 'paper':
      return 'paper'
    case 'leaves':
      return 'leaf'
    case 'kitchen':
      return 'scrap'
    case 'grass & weeds':
      return kind === 'brown' ? 'straw' : 'grass'
    case 'aquatic':
      return 'tops'
    case 'animal by-product':
      return particle === 'coarse' ? 'fleece' : 'meal'
    case 'mineral amendment':
      return 'grain'
    case 'microbial':
      return 'soil'
    case 'liquid':
      return 'liquid'
    case 'crop residue':
      if (kind === 'green') return 'tops'
      return particle === 'coarse' ? 'stalk' : 'straw'
    default:
      if (kind === 'green') return 'meal'
      return particle === 'coarse' || kind === 'bulking' ? 'husk' : 'pulp'
  }
}

/**
 * The sign of a material, for good: those of the book are written down, so that no other material
 * that comes or goes changes them; a person's own has the variant that its id gives.
 */
export function hatchOf(material: Traits): string {
  const kept = (KEPT as Record<string, string>)[material.id]
  if (kept) return kept
  const sum = [...material.id].reduce((hash, letter) => (hash * 31 + letter.charCodeAt(0)) >>> 0, 7)
  return hatchId(familyOf(material), sum % VARIANTS)
}

export function hatchId(family: Family, variant: number): string {
  return `hatch-${family}-${variant}`
}
