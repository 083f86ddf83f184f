<script setup lang="ts">
import dayjs from 'dayjs'
import { watch } from 'vue'
import { useRegional, type Written } from '@/lib/regional'

/** Asks for a day, written and with weeks as the class or the account has them; the day is kept as 2026-03-05. */
const props = withDefaults(defineProps<{ label: string; as?: Written | null; hint?: string }>(), {
  as: null,
  hint: 'a day',
})
const day = defineModel<string>({ required: true })
const regional = useRegional(() => props.as)

// the calendar asks its language for the first day of a week as it is made: before that, and made anew after a change
watch(regional.firstDay, (first) => (dayjs.Ls[dayjs.locale()]!.weekStart = first), { immediate: true })
</script>

<template>
  <el-date-picker
    :key="regional.firstDay()"
    :model-value="day"
    type="date"
    value-format="YYYY-MM-DD"
    :format="regional.format()"
    :placeholder="hint"
    :aria-label="label"
    style="--el-date-editor-width: 170px"
    @update:model-value="(chosen: string | null) => (day = chosen ?? '')"
  />
</template>
