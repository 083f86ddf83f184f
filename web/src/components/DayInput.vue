<script setup lang="ts">
import dayjs from 'dayjs'
import { useRegional, type Written } from '@/lib/regional'

/** Asks for a day, written and with weeks as the class or the account has them; the day is kept as 2026-03-05. */
const props = defineProps<{ label: string; as?: Written | null }>()
const day = defineModel<string>({ required: true })
const regional = useRegional(() => props.as)

/** The calendar asks its language for the first day of a week, as it draws itself. */
function beginWeek(open: boolean): void {
  if (open) dayjs.Ls[dayjs.locale()]!.weekStart = regional.firstDay()
}
</script>

<template>
  <el-date-picker
    :model-value="day"
    type="date"
    value-format="YYYY-MM-DD"
    :format="regional.format()"
    :placeholder="regional.format()"
    :aria-label="label"
    class="day"
    @update:model-value="(chosen: string | null) => (day = chosen ?? '')"
    @visible-change="beginWeek"
  />
</template>

<style scoped>
.day {
  --el-date-editor-width: 150px;
}
</style>
