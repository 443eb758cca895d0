<script setup lang="ts">
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import WallMix from './WallMix.vue'
import WallRules from './WallRules.vue'
import WallSection from './WallSection.vue'
import WallWorking from './WallWorking.vue'

/** A page for a room: which of them, and back to where it came from. */
const { what } = defineProps<{ what: string }>()
const router = useRouter()

const WALLS: Record<string, { is: object; from: string }> = {
  mix: { is: WallMix, from: '/bench' },
  working: { is: WallWorking, from: '/bench' },
  section: { is: WallSection, from: '/bench' },
  rules: { is: WallRules, from: '/rules' },
}
const wall = computed(() => WALLS[what] ?? WALLS.mix!)
const leave = () => void router.push(wall.value.from)
</script>

<template>
  <component :is="wall.is" @leave="leave" />
</template>
