// Command schema writes what the page knows of the core from what this declares: web/src/engine/primitives.ts of display lists, answers.ts of
// what the engine is asked and answers.
package main

import (
	"fmt"
	"os"
	"strings"

	"capstan/core/display"
)

const file = "web/src/engine/primitives.ts"

func main() {
	text, err := answers(".")
	if err == nil {
		err = os.WriteFile(answersFile, []byte(text), 0o644)
	}
	if err == nil {
		err = os.WriteFile(file, []byte(page()), 0o644)
	}
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

func page() string {
	var b strings.Builder
	b.WriteString(`// Written by go run ./scripts/schema from core/frame/schema.go; a test fails where it is stale.

/** The primitives of a display list, by name. */
export const op = {
`)
	for _, p := range display.Primitives {
		fmt.Fprintf(&b, "  %s: %d,\n", p.Name, p.Op)
	}
	fmt.Fprintf(&b, "  end: %d,\n  next: %d,\n} as const\n", display.OpEnd, display.OpNext)
	b.WriteString(`
/** What follows an op: codes, numbers, whether its first code counts terms of a veil or verbs, and what it holds. */
export interface Head {
  codes: number
  numbers: number
  terms: boolean
  verbs: boolean
  pixels: boolean
  paint: boolean
  inside: number
}

export const heads: Record<number, Head | undefined> = {
`)
	for _, p := range display.Primitives {
		fmt.Fprintf(&b, "  %d: { codes: %d, numbers: %d, terms: %v, verbs: %v, pixels: %v, paint: %v, inside: %d },\n", p.Op, p.Codes, p.Numbers, p.Terms, p.Verbs, p.Pixels, p.Paint, p.Inside)
	}
	b.WriteString(`}

/** Terms of veils, by name. */
export const term = {
`)
	for i, t := range display.VeilTerms {
		fmt.Fprintf(&b, "  %s: %d,\n", t.Name, i)
	}
	b.WriteString(`} as const

/** Of each: codes that follow it, and numbers. */
export const terms = [
`)
	for _, t := range display.VeilTerms {
		fmt.Fprintf(&b, "  { codes: %d, numbers: %d },\n", t.Codes, t.Numbers)
	}
	b.WriteString(`]

/** Kinds of paints, by name. */
export const paintKind = { `)
	for i, k := range display.PaintKinds {
		fmt.Fprintf(&b, "%s: %d, ", k.Name, i)
	}
	b.WriteString(`} as const

/** Of each: codes that follow it, numbers, and numbers for each of what the first of these codes counts. */
export const paints = [
`)
	for _, k := range display.PaintKinds {
		fmt.Fprintf(&b, "  { codes: %d, numbers: %d, each: %d },\n", k.Codes, k.Numbers, k.Each)
	}
	b.WriteString(`]

/** Blends by their code. */
export const blends = [
`)
	for _, name := range display.Blends {
		fmt.Fprintf(&b, "  '%s',\n", name)
	}
	b.WriteString("] as const\n")
	return b.String()
}
