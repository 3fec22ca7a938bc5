package languages_test

import "testing"

func TestComponentsInOneFile(t *testing.T) {
	run(t, []sample{
		{name: "a script with types, and markup with templates in it", file: "Shelf.vue", text: `<template>
  <div v-if="a < b"><template #lot="{ lot }"><Lot :lot="lot" /></template></div>
</template>

<script setup lang="ts">
import Lot from './Lot.vue'
const props = defineProps<{ slots: number }>()
function put<T>(lot: T): void { const s = '</div>' }
</script>
<style scoped src="./shelf.css"></style>
`, defs: []string{"constant props 7-7", "function put 8-8"}, imports: []string{"6 ./Lot.vue: default", "10 template ./shelf.css: "}},
		{name: "a component that is mostly markup", file: "Shelf.svelte", text: `<script context="module">export const max = 4</script>
<script>
  import { weigh } from './weigh.js'
  export let lots = []
  $: total = weigh(lots)
</script>
<h1>it's {total}</h1>
{#each lots as lot}<p>{lot}</p>{/each}
<style>
  @import 'base.css';
</style>
`, defs: []string{"+constant max 1-1", "+variable lots 4-4"}, imports: []string{"3 ./weigh.js: weigh", "10 template base.css: "}},
	})
}

func TestWhatIsRenderedBuiltUponAndPassedOn(t *testing.T) {
	linksOf(t, map[string]linkCase{
		"components through an index, under other names, and late": {tree: `
-- app.tsx --
import { Shelf, Slot as Place } from './parts'
import * as words from './words'
import Sign from './sign'
const Late = React.lazy(() => import('./late'))
export const App = () => <Shelf><Place /><words.Note /><Sign.Big /><Late /><div /><Shelf /></Shelf>
class Own extends Shelf implements words.Named {}
-- parts/index.ts --
export * from './shelf'
export { default as Slot } from './slot'
-- parts/shelf.tsx --
export class Shelf {}
-- parts/slot.tsx --
export default () => <i />
-- words.ts --
import { Note } from './note'
export { Note }
export interface Named {}
-- note.tsx --
export const Note = () => <p />
-- sign.tsx --
export default 1
-- late.tsx --
export default () => <p />
`, links: []string{
			"app.tsx -> parts/index.ts", "app.tsx -> parts/shelf.tsx (name via index)", "app.tsx -> parts/slot.tsx (name via index)",
			"app.tsx -> words.ts", "app.tsx -> sign.tsx", "app.tsx -> late.tsx (lazy import)",
			"app.tsx -> late.tsx (rendering)", "app.tsx -> note.tsx (rendering)", "app.tsx -> parts/shelf.tsx (rendering)", "app.tsx -> parts/slot.tsx (rendering)", "app.tsx -> sign.tsx (rendering)",
			"app.tsx -> parts/shelf.tsx (inheritance)", "app.tsx -> words.ts (inheritance)",
			"parts/index.ts -> parts/shelf.tsx (re-export)", "parts/index.ts -> parts/slot.tsx (re-export)", "words.ts -> note.tsx"}},
		"a component in one file, and those it draws": {tree: `
-- Shelf.vue --
<template><my-lot /><Gone /></template>
<script>
import MyLot from '@/lot/MyLot.vue'
export default { components: { MyLot } }
</script>
<style lang="scss">@use "./base";</style>
-- lot/MyLot.vue --
<script>export default {}</script>
-- base.scss --
-- tsconfig.json --
{ "compilerOptions": { "paths": { "@/*": ["./*"] } } }
`, links: []string{"Shelf.vue -> lot/MyLot.vue (rendering)", "Shelf.vue -> lot/MyLot.vue", "Shelf.vue -> base.scss (template)"}},
	})
}

func TestStyleSheets(t *testing.T) {
	run(t, []sample{
		{name: "what a sheet brings in and defines", file: "shelf.scss", text: `@use "base" as b with ($gap: 1px);
@import 'lots/lot', "sign"; // comment with ' quote
$gap: 4px !default;
@mixin raised($by: 2px) {
  .a { background: url(data:image/png;base64,//8=}); }
}
@function half($n) { @return $n / 2; }
@forward "theme";
.shelf-item { $inner: 1; &:hover { color: #{$gap}; } }
`, defs: []string{"+variable $gap 3-3", "+function raised 4-6", "+function half 7-7"},
			imports: []string{"1 base: *", "2 lots/lot: *", "2 sign: *", "8 re-export theme: *"}},
		{name: "a plain sheet", file: "a.css", text: "@import url(base.css) screen;\n@import url(\"//elsewhere/x.css\");\na{b:url(//c/d.png)}\n@media print { a { c: d } }\n",
			imports: []string{"1 base.css: *", "2 //elsewhere/x.css: *"}},
		{name: "variables of Less", file: "a.less", text: "@gap: 2px;\n.m() { x: @gap; }\n@media x { }\n@import (reference) \"b\";\n",
			defs: []string{"+variable @gap 1-1"}, imports: []string{"4 b: *"}},
	})
	linksOf(t, map[string]linkCase{
		"parts, indexes and packages": {tree: `
-- app/main.scss --
@use 'parts/lot';
@use "theme";
@import './gone';
@import 'sass:math';
@import 'words/sheet';
@import "bootstrap/scss/grid";
-- app/parts/_lot.scss --
-- theme/_index.scss --
-- node_modules/words/sheet.css --
`, links: []string{"app/main.scss -> app/parts/_lot.scss", "app/main.scss -> theme/_index.scss", "app/main.scss -> node_modules/words/sheet.css"},
			external: []string{"bootstrap"}, unresolved: []string{"./gone"}},
	})
}
