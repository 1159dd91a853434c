package svg

import (
	"cmp"
	"slices"
	"strconv"
	"strings"

	"github.com/tdewolff/parse/v2"
	"github.com/tdewolff/parse/v2/css"
)

func itoa(n int) string { return strconv.Itoa(n) }

// properties are those of CSS that a drawing may have as attributes; true: what lies in an element has them too.
var properties = map[string]bool{
	"fill": true, "fill-opacity": true, "fill-rule": true, "stroke": true, "stroke-opacity": true, "stroke-width": true, "stroke-linecap": true, "stroke-linejoin": true,
	"stroke-miterlimit": true, "stroke-dasharray": true, "stroke-dashoffset": true, "color": true, "visibility": true, "font-family": true, "font-size": true,
	"font-weight": true, "font-style": true, "text-anchor": true, "letter-spacing": true, "clip-rule": true, "marker-start": true, "marker-mid": true, "marker-end": true,
	"paint-order": true, "font": true, "context-fill": true, "context-stroke": true, "line-height": true, "white-space": true,
	"opacity": false, "display": false, "clip-path": false, "mask": false, "filter": false, "stop-color": false, "stop-opacity": false, "mix-blend-mode": false,
	"vector-effect": false, "transform": false, "overflow": false, "isolation": false, "flood-color": false, "color-interpolation-filters": true, "flood-opacity": false, "text-decoration": false,
	"dominant-baseline": false, "baseline-shift": false, "mask-type": false,
	"x": false, "y": false, "width": false, "height": false, "cx": false, "cy": false, "r": false, "rx": false, "ry": false, "d": false,
}

// rule is a rule of a sheet for one selector.
type rule struct {
	parts  []compound // from the outermost to what it is about
	weight [3]int     // ids, classes, types
	says   map[string]string
	strong map[string]bool
	order  int
}

// compound is what a selector says of one element, and how that stands to the one before.
type compound struct {
	child      bool // of the one before; else anywhere in it
	name, id   string
	classes    []string
	attributes [][2]string
	never      bool // it says what is not known here
}

// sheet reads the rules of a style element.
func sheet(text string, lost *losses, from *node) (rules []rule) {
	p := css.NewParser(parse.NewInputString(text), false)
	var selectors [][]compound
	says, strong := map[string]string{}, map[string]bool{}
	skip := 0
	for {
		kind, _, data := p.Next()
		switch kind {
		case css.ErrorGrammar:
			return rules
		case css.BeginAtRuleGrammar:
			skip++
			if name := string(data); name != "@media" && name != "@supports" && name != "@font-face" && name != "@keyframes" {
				continue
			}
			lost.add("a part of its style that holds only sometimes", from)
		case css.EndAtRuleGrammar:
			skip--
		case css.AtRuleGrammar:
			if string(data) == "@import" {
				lost.add("a style from elsewhere", from)
			}
		case css.QualifiedRuleGrammar, css.BeginRulesetGrammar:
			from := 0
			list := p.Values()
			for i, t := range list {
				if t.TokenType == css.CommaToken {
					selectors = append(selectors, selector(list[from:i]))
					from = i + 1
				}
			}
			selectors = append(selectors, selector(list[from:]))
			if kind == css.BeginRulesetGrammar {
				says, strong = map[string]string{}, map[string]bool{}
			}
		case css.DeclarationGrammar:
			value, important := written(p.Values())
			name := strings.ToLower(string(data))
			says[name], strong[name] = value, important
		case css.EndRulesetGrammar:
			if skip == 0 {
				for _, s := range selectors {
					if len(s) == 0 {
						continue
					}
					r := rule{parts: s, says: says, strong: strong, order: len(rules)}
					known := true
					for _, c := range s {
						known = known && !c.never
						r.weight[1] += len(c.classes) + len(c.attributes)
						if c.id != "" {
							r.weight[0]++
						}
						if c.name != "" {
							r.weight[2]++
						}
					}
					if !known {
						lost.add("a style for some states only", from)
						continue
					}
					rules = append(rules, r)
				}
			}
			selectors = nil
		}
	}
}

// written is the value of a declaration as text, and whether it is important.
func written(tokens []css.Token) (string, bool) {
	var b strings.Builder
	important := false
	for i, t := range tokens {
		if t.TokenType == css.DelimToken && string(t.Data) == "!" && i+1 < len(tokens) && strings.EqualFold(string(tokens[i+1].Data), "important") {
			important = true
			break
		}
		b.Write(t.Data)
	}
	return strings.TrimSpace(b.String()), important
}

// selector reads one selector.
func selector(tokens []css.Token) (list []compound) {
	now, began, child := compound{}, false, false
	end := func() {
		if began {
			now.child = child
			list = append(list, now)
			now, began, child = compound{}, false, false
		}
	}
	for i := 0; i < len(tokens); i++ {
		t := tokens[i]
		s := string(t.Data)
		switch {
		case t.TokenType == css.WhitespaceToken:
			end()
		case s == ">":
			end()
			child = true
		case s == "." && i+1 < len(tokens):
			i++
			now.classes, began = append(now.classes, string(tokens[i].Data)), true
		case t.TokenType == css.HashToken:
			now.id, began = strings.TrimPrefix(s, "#"), true
		case s == "*":
			began = true
		case t.TokenType == css.IdentToken:
			now.name, began = s, true
		case s == "[":
			began = true
			var inside strings.Builder
			for i++; i < len(tokens) && string(tokens[i].Data) != "]"; i++ {
				inside.Write(tokens[i].Data)
			}
			name, value, equals := strings.Cut(inside.String(), "=")
			if strings.ContainsAny(name, "~|^$*") {
				now.never = true
				continue
			}
			if !equals {
				value = "\x00"
			}
			now.attributes = append(now.attributes, [2]string{strings.TrimSpace(name), strings.Trim(strings.TrimSpace(value), `"'`)})
		default:
			now.never, began = true, true
		}
	}
	end()
	return list
}

func (c *compound) fits(n *node) bool {
	if c.name != "" && c.name != n.name || c.id != "" && c.id != n.at["id"] {
		return false
	}
	classes := strings.Fields(n.at["class"])
	for _, k := range c.classes {
		if !slices.Contains(classes, k) {
			return false
		}
	}
	for _, a := range c.attributes {
		v, ok := n.at[a[0]]
		if !ok || a[1] != "\x00" && v != a[1] {
			return false
		}
	}
	return true
}

// about reports whether a rule is about an element.
func (r *rule) about(n *node) bool {
	last := len(r.parts) - 1
	return last >= 0 && r.parts[last].fits(n) && r.upwards(last, n)
}

// upwards reports whether what stands before part i fits what an element lies in.
func (r *rule) upwards(i int, n *node) bool {
	if i == 0 {
		return true
	}
	for p := n.parent; p != nil; p = p.parent {
		if r.parts[i-1].fits(p) && r.upwards(i-1, p) {
			return true
		}
		if r.parts[i].child {
			return false
		}
	}
	return false
}

// styled gives each element what is said of it: by attributes, by rules, the more particular the stronger, and by its own style (CSS Cascade, level 4).
func styled(root *node, lost *losses) {
	var rules []rule
	root.walk(func(n *node) {
		if n.name == "style" {
			for _, r := range sheet(n.content(), lost, n) {
				r.order = len(rules)
				rules = append(rules, r)
			}
		}
	})
	slices.SortStableFunc(rules, func(a, b rule) int {
		for k := range a.weight {
			if c := cmp.Compare(a.weight[k], b.weight[k]); c != 0 {
				return c
			}
		}
		return cmp.Compare(a.order, b.order)
	})
	byKey := map[string][]int{} // places in rules, by what the element itself must be
	for i := range rules {
		k := rules[i].key()
		byKey[k] = append(byKey[k], i)
	}
	root.walk(func(n *node) {
		n.style = map[string]string{}
		for name, v := range n.at {
			if _, ok := properties[name]; ok {
				n.style[name] = strings.TrimSpace(v)
			}
		}
		strong := map[string]bool{}
		put := func(name, v string, important bool) {
			if _, ok := properties[name]; ok && (important || !strong[name]) {
				n.style[name] = v
				strong[name] = strong[name] || important
			}
		}
		var about []int
		for _, k := range n.keys() {
			about = append(about, byKey[k]...)
		}
		slices.Sort(about)
		for _, i := range slices.Compact(about) {
			if rules[i].about(n) {
				for name, v := range rules[i].says {
					put(name, v, rules[i].strong[name])
				}
			}
		}
		if own := n.at["style"]; own != "" {
			p := css.NewParser(parse.NewInputString(own), true)
			for {
				kind, _, data := p.Next()
				if kind == css.ErrorGrammar {
					break
				}
				if kind == css.DeclarationGrammar {
					v, important := written(p.Values())
					put(strings.ToLower(string(data)), v, important)
				}
			}
		}
	})
}

// key is what an element must be so that a rule can be about it: its id, one of its classes or its name; empty: anything.
func (r *rule) key() string {
	c := &r.parts[len(r.parts)-1]
	switch {
	case c.id != "":
		return "#" + c.id
	case len(c.classes) > 0:
		return "." + c.classes[0]
	}
	return c.name
}

// keys are those of rules that may be about an element.
func (n *node) keys() []string {
	keys := []string{"", n.name, "#" + n.at["id"]}
	for _, c := range strings.Fields(n.at["class"]) {
		keys = append(keys, "."+c)
	}
	return keys
}

// inherited is the style of an element in one whose style is known.
func inherited(outer, own map[string]string) map[string]string {
	out := make(map[string]string, len(outer)+len(own))
	for name, v := range outer {
		if properties[name] {
			out[name] = v
		}
	}
	for name, v := range own {
		switch strings.ToLower(v) {
		case "inherit":
			if o, ok := outer[name]; ok {
				out[name] = o
			} else {
				delete(out, name)
			}
		case "initial", "unset", "revert":
			if strings.ToLower(v) == "unset" && properties[name] {
				continue
			}
			delete(out, name)
		default:
			out[name] = v
		}
	}
	return out
}
