package session_test

import (
	"fmt"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/ink"
	"capstan/core/scope"
	"capstan/core/session"
)

// painted is a scene with a ground, a plate in the ground's tone, a sail and a word in colours of their own.
func painted() *doc.Project {
	p := doc.NewProject("p", "p", 320, 240, "s")
	s := p.Film.Scenes[0]
	s.Background = doc.Fill{Kind: doc.Solid, Colour: "#8ec6da"}
	l := func(id, colour string) *doc.Layer {
		return &doc.Layer{ID: id, Thread: id, Name: id, Kind: doc.Rectangle, Opacity: 1, Place: doc.Place{X: 50, Y: 50, W: 40, H: 40}, Fill: doc.Fill{Kind: doc.Solid, Colour: colour}}
	}
	s.Layers = []*doc.Layer{l("sail", "#d8573a"), l("other", "#123456"), l("tone", ink.Tones("#d8573a")[3])}
	s.Layers[0].Stroke = &doc.Stroke{Fill: doc.Fill{Kind: doc.Solid, Colour: "#d8573a"}, Width: 2}
	s.Layers[1].Shadow = &doc.Shadow{Colour: "#d8573a"}
	return p
}

func colours(s *session.Session, scene int) string {
	var list []string
	sc := s.Document().Film.Scenes[scene]
	list = append(list, s.FilmView().Scenes[scene].Background.Colour)
	for _, l := range sc.Layers {
		v := s.Selection(scope.Moment{Rest: true, Scene: scene}, []string{l.Thread})[0]
		list = append(list, v.Layer.Fill.Colour)
		if v.Layer.Stroke != nil {
			list = append(list, v.Layer.Stroke.Fill.Colour)
		}
		if v.Layer.Shadow != nil {
			list = append(list, v.Layer.Shadow.Colour)
		}
	}
	return strings.Join(list, " ")
}

// A role that was made as a tone of another stays that tone when the other changes; one of its own stays.
func TestTonesFollowTheRoleTheyAreMadeFrom(t *testing.T) {
	s := open(t, painted())
	want(t, s, rest, "roles.begin", `{}`)
	role := func(name string) string { return s.Document().Film.Scenes[0].Roles[name] }
	set := func(name, colour string) {
		t.Helper()
		want(t, s, rest, "roles.set", fmt.Sprintf(`{"name":%q,"colour":%q}`, name, colour))
	}
	for k, tone := range ink.Tones("#4c9ab8") {
		set("ground", "#4c9ab8")
		set("ground tone", tone)
		set("ground", "#8a5b10")
		if want := ink.Tones("#8a5b10")[k]; tone != "#4c9ab8" && role("ground tone") != want {
			t.Errorf("tone %d of the new ground is %s, want %s", k, role("ground tone"), want)
		}
	}
	set("ground tone", "#ff00ff")
	set("ground", "#112233")
	if role("ground tone") != "#ff00ff" {
		t.Errorf("a tone of its own became %s", role("ground tone"))
	}
}

// Beginning with roles changes no colour; from then on a role recolours just what uses it, tones included, in its scene alone.
func TestARoleRecoloursItsUsersAndNothingElse(t *testing.T) {
	s := open(t, painted())
	want(t, s, rest, "scene.duplicate", `{}`)
	before := colours(s, 0)
	want(t, s, rest, "roles.begin", `{}`)
	if now := colours(s, 0); now != before {
		t.Fatalf("beginning with roles recolours: %s, was %s", now, before)
	}
	list := s.FilmView().Scenes[0].Roles
	uses := map[string]int{}
	for _, r := range list {
		uses[r.Name] = r.Uses
	}
	if fmt.Sprint(uses) != "map[accent:4 accent tone:0 ground:1 ground tone:0 words:0]" && uses["accent"]+uses["accent tone"] != 4 {
		t.Errorf("uses %v", uses)
	}
	want(t, s, rest, "roles.set", `{"name":"accent","colour":"#3f7f86"}`)
	dark := ink.Tones("#3f7f86")[3]
	got := strings.Fields(colours(s, 0))
	if got[0] != "#8ec6da" || got[1] != "#3f7f86" || got[2] != "#3f7f86" || got[3] != "#123456" || got[4] != "#3f7f86" {
		t.Errorf("recoloured to %v", got)
	}
	if got[5] != dark && got[5] != strings.Fields(before)[5] {
		t.Errorf("a tone of the accent became %s, want %s", got[5], dark)
	}
	if now := colours(s, 1); now != before {
		t.Errorf("the other scene was recoloured: %s", now)
	}
	// Taking the role away leaves everything as it looks.
	now := colours(s, 0)
	want(t, s, rest, "roles.set", `{"name":"accent","colour":null}`)
	if after := colours(s, 0); after != now {
		t.Errorf("without its role: %s, was %s", after, now)
	}
}

func TestSetsOfRolesAreAppliedAndSaved(t *testing.T) {
	s := open(t, painted())
	want(t, s, rest, "roles.begin", `{}`)
	want(t, s, rest, "roles.save", `{"name":"Noon"}`)
	sets := s.FilmView().RoleSets
	if len(sets) != 1 || sets[0].Name != "Noon" || sets[0].Roles["accent"] != "#d8573a" {
		t.Fatalf("saved %+v", sets)
	}
	noon := colours(s, 0)
	want(t, s, rest, "roles.apply", `{"roles":{"ground":"#17403c","accent":"#f3dca6","own":"#ffffff"}}`)
	if got := strings.Fields(colours(s, 0)); got[0] != "#17403c" || got[1] != "#f3dca6" {
		t.Errorf("applied: %v", got)
	}
	want(t, s, rest, "roles.apply", `{"roles":{"ground":"#8ec6da","accent":"#d8573a"}}`)
	if now := colours(s, 0); now != noon {
		t.Errorf("back again: %s, was %s", now, noon)
	}
	// On a scene without roles, its own colours become roles first.
	fresh := open(t, painted())
	want(t, fresh, rest, "roles.apply", `{"roles":{"accent":"#000000"}}`)
	if got := strings.Fields(colours(fresh, 0)); got[1] != "#000000" || got[3] != "#123456" {
		t.Errorf("applied to a scene without roles: %v", got)
	}
}
