<script setup lang="ts">
import type { Blank } from '#core/paper/blanks'

/** Where an answer is written on paper. */
defineProps<{ blank: Blank }>()
</script>

<template>
  <div class="blank">
    <p
      v-if="'hint' in blank && blank.hint"
      class="small quiet"
    >
      {{ blank.hint }}
    </p>
    <div
      v-if="blank.kind === 'line'"
      class="row-flex line"
    >
      <span class="rule" /><span v-if="blank.unit">{{ blank.unit }}</span>
    </div>
    <template v-else-if="blank.kind === 'lines'">
      <div
        v-for="n in blank.count"
        :key="n"
        class="line"
      >
        <span class="rule" />
      </div>
    </template>
    <ul
      v-else-if="blank.kind === 'boxes'"
      class="boxes"
    >
      <li
        v-for="(box, i) in blank.boxes"
        :key="i"
      >
        <span class="box" />
        <span>{{ box.label }}</span>
        <span
          v-if="box.goOn"
          class="go"
          >→ {{ box.goOn }}</span
        >
      </li>
    </ul>
    <v-table
      v-else-if="blank.kind === 'table'"
      density="compact"
    >
      <thead>
        <tr>
          <td />
          <th
            v-for="step in blank.steps"
            :key="step"
            scope="col"
          >
            {{ step }}
          </th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="row in blank.rows"
          :key="row"
        >
          <th scope="row">{{ row }}</th>
          <td
            v-for="step in blank.steps"
            :key="step"
          >
            <span class="box" />
          </td>
        </tr>
      </tbody>
    </v-table>
    <div
      v-else
      class="frame"
    />
  </div>
</template>

<style scoped>
.blank {
  margin-top: 4px;
}
.line {
  height: 28px;
  display: flex;
  align-items: end;
  gap: 8px;
}
.rule {
  flex: 1;
  border-bottom: 1px solid currentcolor;
}
.boxes {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 24px;
}
.boxes li {
  display: flex;
  align-items: baseline;
  gap: 8px;
}
.box {
  display: inline-block;
  width: 13px;
  height: 13px;
  border: 1px solid currentcolor;
  position: relative;
  top: 2px;
  flex: none;
}
.go {
  font-style: italic;
}
tbody td,
thead th {
  text-align: center;
}
.frame {
  height: 72px;
  border: 1px solid currentcolor;
}
</style>
