package session_test

import (
	"slices"
	"strings"
	"testing"

	"capstan/core/view"
)

func TestRowsAreThreadsInStackingOrder(t *testing.T) {
	s := opener(t)
	rows := s.Rows(rest)
	if rows[0].Thread != "t-kite" || !rows[0].Group || rows[1].Parent != "t-kite" {
		t.Errorf("the front layer heads the rows: %+v", rows[0])
	}
	absent := slices.IndexFunc(rows, func(r view.Row) bool { return r.Thread == "t-plate" })
	last := slices.IndexFunc(rows, func(r view.Row) bool { return r.Thread == "t-sky" })
	if absent < last || rows[absent].Here {
		t.Error("threads that are absent here stand below")
	}
	kite := rows[0]
	if len(kite.Spans) != 3 || !kite.Spans[1].Strand || kite.Spans[1].Begin != 4600 || kite.Spans[1].End != 5800 {
		t.Errorf("the kite lives in two scenes and the morph between: %+v", kite.Spans)
	}
}

func TestRowsDroppedMoveInTheStackingOrder(t *testing.T) {
	s := opener(t)
	order := func() (out []string) {
		for _, r := range s.Rows(rest) {
			if r.Depth == 0 && r.Here {
				out = append(out, strings.TrimPrefix(r.Thread, "t-"))
			}
		}
		return
	}
	for _, c := range []struct{ intent, args, want string }{
		{"order", `{"threads":["t-title"],"to":"front"}`, "title kite sub"},
		{"order", `{"threads":["t-title"],"to":"down"}`, "kite title sub"},
		{"order", `{"threads":["t-title","t-sub"],"to":"up"}`, "title sub kite"},
		{"order.before", `{"threads":["t-kite"],"target":"t-title","where":"above"}`, "kite title sub"},
		{"order.before", `{"threads":["t-kite"],"target":"t-sub","where":"below"}`, "title sub kite"},
	} {
		want(t, s, rest, c.intent, c.args)
		if got := strings.Join(order()[:3], " "); got != c.want {
			t.Errorf("%s %s: %s, want %s", c.intent, c.args, got, c.want)
		}
	}
	// The locked ground stays behind all else.
	want(t, s, rest, "order", `{"threads":["t-sub"],"to":"back"}`)
	if o := order(); o[len(o)-2] != "sub" || o[len(o)-1] != "sky" {
		t.Errorf("at the back: %v", o)
	}
	refused(t, s, "locked ground", "order", `{"threads":["t-sub"],"to":"down"}`)
}
