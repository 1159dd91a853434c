// Command oracle combines pairs of paths with a library that is not ours and prints the areas. It is a module of its own, so that
// what the library brings along stays out of Capstan. Standard input: [{"a", "b"}], path data. Standard output: [{how: area}].
package main

import (
	"encoding/json"
	"fmt"
	"os"

	"github.com/tdewolff/canvas"
)

func main() {
	if err := run(); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

func run() error {
	var in []struct{ A, B string }
	if err := json.NewDecoder(os.Stdin).Decode(&in); err != nil {
		return err
	}
	out := make([]map[string]*float64, len(in))
	for i, pair := range in {
		p, err := settled(pair.A)
		if err != nil {
			return err
		}
		q, err := settled(pair.B)
		if err != nil {
			return err
		}
		out[i] = map[string]*float64{}
		for how, f := range map[string]func(*canvas.Path) *canvas.Path{"unite": p.Or, "cut": p.Not, "overlap": p.And, "drop": p.Xor} {
			out[i][how] = tried(func() float64 { return area(f(q).Settle(canvas.EvenOdd)) })
		}
	}
	return json.NewEncoder(os.Stdout).Encode(out)
}

// settled reads a nonzero path as one that does not cross itself.
func settled(d string) (*canvas.Path, error) {
	p, err := canvas.ParseSVGPath(d)
	if err != nil {
		return nil, err
	}
	return p.Flatten(0.02).Settle(canvas.NonZero), nil
}

// tried is f, or nothing where the library gives up.
func tried(f func() float64) (v *float64) {
	defer func() {
		if recover() != nil {
			v = nil
		}
	}()
	a := f()
	return &a
}

// area of lines that do not cross, holes running the other way.
func area(p *canvas.Path) float64 {
	sum := 0.0
	for _, sub := range p.Split() {
		c := sub.Coords()
		for i := range c {
			k := (i + 1) % len(c)
			sum += (c[i].X*c[k].Y - c[k].X*c[i].Y) / 2
		}
	}
	return max(sum, -sum)
}
