//go:build js && wasm

package main

import (
	"syscall/js"
	"unsafe"

	"capstan/core/plain"
)

// How many forms are kept, and how long one that is kept may be in bytes: longer ones, such as all rows of a film, seldom come again.
const (
	mostForms   = 127
	longestForm = 1 << 18
)

var (
	writer plain.Writer
	out    []float64          // the answer that is read next: the number of its form, how many numbers follow, and these
	slots  = map[string]int{} // forms that the page has, by their number, 1..mostForms
	forms  [mostForms + 1]string
	newest int
)

// answer writes a value where the page reads it and returns its address in memory; it is read before the next call. The page keeps forms by
// their number; one that it has not got, or that is not kept (number 0), lies in the global capstanForm.
func answer(v any) (float64, error) {
	form, numbers, err := writer.Write(v)
	if err != nil {
		return 0, err
	}
	slot, known := slots[string(form)]
	if !known {
		js.Global().Set("capstanForm", string(form))
		if slot = 0; len(form) <= longestForm {
			newest = newest%mostForms + 1
			slot = newest
			delete(slots, forms[slot])
			forms[slot] = string(form)
			slots[forms[slot]] = slot
		}
	}
	out = append(append(out[:0], float64(slot), float64(len(numbers))), numbers...)
	return float64(uintptr(unsafe.Pointer(&out[0]))), nil
}
