package morph

import (
	"strings"
	"testing"

	"capstan/core/doc"
)

// tree reads "a b(c d) e": threads back to front, groups with what is inside.
func tree(s string) *doc.Scene {
	var stack [][]*doc.Layer
	cur := []*doc.Layer{}
	for _, c := range s {
		switch c {
		case ' ':
		case '(':
			stack = append(stack, cur)
			cur = nil
		case ')':
			outer := stack[len(stack)-1]
			stack = stack[:len(stack)-1]
			outer[len(outer)-1].Children = cur
			outer[len(outer)-1].Kind = doc.Group
			cur = outer
		default:
			cur = append(cur, &doc.Layer{ID: string(c), Thread: string(c)})
		}
	}
	return &doc.Scene{Layers: cur}
}

// write says a plan in words: + comes, - leaves, ! stands under another parent.
func write(list []*Pair) string {
	var out []string
	for _, p := range list {
		s := ""
		switch {
		case p.A == nil:
			s = "+" + p.B.Thread
		case p.B == nil:
			s = "-" + p.A.Thread
		case p.Apart:
			s = "!" + p.A.Thread
		default:
			s = p.A.Thread
		}
		if p.Children != nil {
			s += "(" + write(p.Children) + ")"
		}
		out = append(out, s)
	}
	return strings.Join(out, " ")
}

// docs/motion.md, section 6, Order.
func TestStackingOrderOfAMorph(t *testing.T) {
	for _, c := range []struct{ a, b, first, second string }{
		{"abc", "abc", "a b c", "a b c"},
		{"abc", "cba", "a b c", "c b a"},
		{"ab", "axb", "a +x b", "a +x b"},
		{"ab", "xyab", "+x +y a b", "+x +y a b"},
		{"ab", "baxy", "a +x +y b", "b a +x +y"},
		{"axyb", "ba", "a -x -y b", "b a -x -y"},
		{"a", "z", "+z -a", "-a +z"},
		{"g(ab)c", "g(bxa)c", "g(a b +x) c", "g(b +x a) c"},
		{"g(ab)", "ag(b)", "g(!a b)", "!a g(b)"},
		{"a", "g(xy)", "+g(+x +y) -a", "-a +g(+x +y)"},
	} {
		p := NewPlan(tree(c.a), tree(c.b), func(*doc.Layer) bool { return true }, func(*doc.Layer) bool { return true })
		if got := write(p.First); got != c.first {
			t.Errorf("%s -> %s, first half: %s, want %s", c.a, c.b, got, c.first)
		}
		if got := write(p.Second); got != c.second {
			t.Errorf("%s -> %s, second half: %s, want %s", c.a, c.b, got, c.second)
		}
	}
}

func TestWhatIsNotDrawnIsAbsent(t *testing.T) {
	not := func(id string) func(*doc.Layer) bool { return func(l *doc.Layer) bool { return l.ID != id } }
	p := NewPlan(tree("ag(bc)"), tree("ag(bc)"), not("a"), not("g"))
	if got := write(p.First); got != "+a -g(-b -c)" {
		t.Errorf("got %s", got)
	}
}
