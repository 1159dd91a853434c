package display

// Primitive declares what stands in a list after an op: readers that need not paint walk by it, and the page's is made from it
// (go run ./scripts/schema).
type Primitive struct {
	Op      Op
	Name    string
	Codes   int  // that follow the op
	Numbers int  // that it takes, but for those below
	Terms   bool // its first code counts terms of a veil, which follow it, each with its numbers
	Verbs   bool // its first code counts verbs, which follow it, each with its points among the numbers
	Pixels  bool // its first three codes are width, height and depth of bytes that follow, four a code
	Paint   bool // a paint follows, with its numbers last
	Inside  int  // stretches that follow, each up to an OpNext or OpEnd
}

// Primitives are all that a list may hold, by op, those that hold others with the box they paint in as their first numbers; OpEnd and OpNext end what others begin.
var Primitives = []Primitive{
	{Op: OpFill, Name: "fill", Codes: 1, Numbers: 6, Paint: true},
	{Op: OpOutline, Name: "outline", Codes: 1, Numbers: 6, Verbs: true, Paint: true},
	{Op: OpPicture, Name: "picture", Codes: 3, Numbers: 15},
	{Op: OpGroup, Name: "group", Codes: 1, Numbers: 32, Inside: 1},
	{Op: OpMix, Name: "mix", Numbers: 5, Inside: 2},
	{Op: OpClipPage, Name: "clipPage", Numbers: 8, Inside: 1},
	{Op: OpVeil, Name: "veil", Codes: 1, Numbers: 4, Terms: true, Inside: 1},
	{Op: OpWipe, Name: "wipe", Codes: 1, Numbers: 4, Terms: true, Inside: 2},
	{Op: OpClip, Name: "clip", Codes: 2, Numbers: 10, Inside: 1},
	{Op: OpMask, Name: "mask", Codes: 1, Numbers: 5, Inside: 2},
	{Op: OpProject, Name: "project", Numbers: 18, Inside: 1},
	{Op: OpTile, Name: "tile", Codes: 3, Numbers: 14, Pixels: true},
}

// Holds reports whether a primitive holds others: the first of its numbers are the box it paints in.
func Holds(op Op) bool {
	return op < uint32(len(primitives)) && primitives[op] != nil && primitives[op].Inside > 0
}

// PaintKinds are the kinds of paints by their code: how many codes follow it, how many numbers it takes, and how many more for each of what
// the first of those codes counts.
var PaintKinds = []struct {
	Name                 string
	Codes, Numbers, Each int
}{{"colour", 0, 4, 0}, {"linear", 1, 7, 5}, {"radial", 1, 9, 5}, {"texture", 2, 7, 0}}

// primitives finds them by op; built from Primitives.
var primitives = func() (by [16]*Primitive) {
	for i := range Primitives {
		by[Primitives[i].Op] = &Primitives[i]
	}
	return
}()

// Blends are the names of blends by their code.
var Blends = []string{"normal", "multiply", "screen", "overlay", "darken", "lighten", "colourDodge", "colourBurn", "hardLight", "softLight", "difference", "exclusion", "added"}

// Stretches returns how many stretches of others a primitive holds.
func Stretches(op Op) int {
	if !Holds(op) {
		return 0
	}
	return primitives[op].Inside
}

// Skip returns where the primitive that begins at c among a list's codes and n among its numbers ends, with all that is inside it; ok is false
// where the list breaks off or holds none there.
func Skip(codes []uint32, numbers []float64, c, n int) (endC, endN int, ok bool) {
	c, n, inside, ok := Head(codes, numbers, c, n)
	for i := 0; i < inside && ok; i++ {
		for c < len(codes) && codes[c] != OpEnd && codes[c] != OpNext {
			if c, n, ok = Skip(codes, numbers, c, n); !ok {
				return c, n, false
			}
		}
		c++
	}
	return c, n, ok && c <= len(codes) && n <= len(numbers)
}

// Head returns where what is said of the primitive itself ends, that begins at c among a list's codes and n among its numbers, and how many stretches of
// others follow, each up to an OpNext or OpEnd; ok is false where the list breaks off or holds none there.
func Head(codes []uint32, numbers []float64, c, n int) (endC, endN, stretches int, ok bool) {
	if c >= len(codes) || codes[c] >= uint32(len(primitives)) || primitives[codes[c]] == nil {
		return c, n, 0, false
	}
	p := primitives[codes[c]]
	c++
	if c+p.Codes > len(codes) {
		return c, n, 0, false
	}
	head := codes[c : c+p.Codes]
	c, n = c+p.Codes, n+p.Numbers
	switch {
	case p.Terms:
		if head[0] > MaxVeilTerms {
			return c, n, 0, false
		}
		for range head[0] {
			if c >= len(codes) || codes[c] >= uint32(len(VeilTerms)) {
				return c, n, 0, false
			}
			t := VeilTerms[codes[c]]
			c, n = c+1+t.Codes, n+t.Numbers
		}
	case p.Verbs:
		for range head[0] {
			if c >= len(codes) {
				return c, n, 0, false
			}
			n += 2 * pointsOf[codes[c]&3]
			c++
		}
	case p.Pixels:
		if head[0] > MaxTile || head[1] > MaxTile || head[2] > 4 {
			return c, n, 0, false
		}
		c += (int(head[0])*int(head[1])*int(head[2]) + 3) / 4
	}
	if p.Paint {
		if c >= len(codes) || codes[c] >= uint32(len(PaintKinds)) {
			return c, n, 0, false
		}
		k := PaintKinds[codes[c]]
		if c++; c+k.Codes > len(codes) {
			return c, n, 0, false
		}
		if n += k.Numbers; k.Each > 0 {
			n += k.Each * int(codes[c])
		}
		c += k.Codes
	}
	return c, n, p.Inside, c <= len(codes) && n <= len(numbers)
}

// pointsOf is how many points each verb of an outline takes.
var pointsOf = [4]int{1, 1, 3, 0}
