package edit

import (
	"unicode/utf8"

	"capstan/core/doc"
	"capstan/core/words"
)

// SetWords changes the words of a text. What stays of them before and after the change keeps its setting; what is new takes that of what it
// replaces or follows.
type SetWords struct {
	ID   string `json:"id"`
	Text string `json:"text"`
}

// Op is its name on the wire.
func (c *SetWords) Op() string { return "text.words" }

func (c *SetWords) apply(e *editor) error {
	l, _, _, err := e.layer(c.ID)
	if err != nil {
		return err
	}
	if l.Kind != doc.TextKind {
		return words.New("text.none")
	}
	if n := utf8.RuneCountInString(c.Text); n > doc.MaxText {
		return words.New("text.long", n, doc.MaxText)
	}
	l.Text.Runs = reworded(l.Text.Runs, []rune(c.Text))
	return nil
}

// StyleTexts changes the setting of texts, or of a stretch of them; layers of other kinds are left alone.
type StyleTexts struct {
	IDs   []string `json:"ids"`
	Patch Fields   `json:"patch"`
	From  int      `json:"from"` // runes into the text
	To    int      `json:"to"`   // 0: to its end
}

// Op is its name on the wire.
func (c *StyleTexts) Op() string { return "text.style" }

func (c *StyleTexts) apply(e *editor) error {
	for _, id := range c.IDs {
		l, _, _, err := e.layer(id)
		if err != nil {
			return err
		}
		if l.Kind != doc.TextKind {
			continue
		}
		var out []doc.Run
		at := 0
		for _, r := range l.Text.Runs {
			runes := []rune(r.Text)
			from, to := 0, len(runes)
			if c.To > 0 {
				from, to = min(max(c.From-at, 0), len(runes)), min(max(c.To-at, 0), len(runes))
			}
			at += len(runes)
			if from >= to && len(runes) > 0 {
				out = append(out, r)
				continue
			}
			styled, err := merged(&r, c.Patch, "text")
			if err != nil {
				return err
			}
			before, after := r, r
			before.Text, styled.Text, after.Text = string(runes[:from]), string(runes[from:to]), string(runes[to:])
			for _, part := range []doc.Run{before, *styled, after} {
				if part.Text != "" || len(runes) == 0 && part == *styled {
					out = append(out, part)
				}
			}
		}
		l.Text.Runs = joined(out)
	}
	return nil
}

// reworded returns runs with other words.
func reworded(runs []doc.Run, now []rune) []doc.Run {
	var was []rune
	var of []int
	for i, r := range runs {
		for _, c := range r.Text {
			was, of = append(was, c), append(of, i)
		}
	}
	head := 0
	for head < len(was) && head < len(now) && was[head] == now[head] {
		head++
	}
	tail := 0
	for tail < len(was)-head && tail < len(now)-head && was[len(was)-1-tail] == now[len(now)-1-tail] {
		tail++
	}
	// New words belong to the run they replace, else to that before them.
	mid := 0
	switch {
	case head < len(was)-tail:
		mid = of[head]
	case head > 0:
		mid = of[head-1]
	}
	text := make([][]rune, len(runs))
	for i := range now {
		k := mid
		switch {
		case i < head:
			k = of[i]
		case i >= len(now)-tail:
			k = of[len(was)-(len(now)-i)]
		}
		text[k] = append(text[k], now[i])
	}
	out := make([]doc.Run, 0, len(runs))
	for i, r := range runs {
		if r.Text = string(text[i]); r.Text != "" {
			out = append(out, r)
		}
	}
	if len(out) == 0 { // without words its setting stays
		r := runs[0]
		r.Text = ""
		out = append(out, r)
	}
	return out
}

// joined makes neighbouring runs in one setting one.
func joined(runs []doc.Run) []doc.Run {
	var out []doc.Run
	for _, r := range runs {
		if n := len(out); n > 0 {
			same := r
			same.Text = out[n-1].Text
			if same == out[n-1] {
				out[n-1].Text += r.Text
				continue
			}
		}
		out = append(out, r)
	}
	return out
}
