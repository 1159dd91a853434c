package doc

import (
	"os"
	"reflect"
	"testing"
)

func fixtureProject(t *testing.T) *Project {
	t.Helper()
	raw, err := os.ReadFile("testdata/version-2.json")
	if err != nil {
		t.Fatal(err)
	}
	p, err := Read(raw)
	if err != nil {
		t.Fatal(err)
	}
	return p
}

func fixtureScene(t *testing.T) *Scene { return fixtureProject(t).Film.Scenes[0] }

// every calls change for each field of v and of what it points to, and back after each.
func every(t *testing.T, name string, v reflect.Value, check func(field string)) {
	t.Helper()
	switch v.Kind() {
	case reflect.Pointer:
		if !v.IsNil() {
			every(t, name, v.Elem(), check)
			old := reflect.ValueOf(v.Interface())
			v.Set(reflect.Zero(v.Type()))
			check(name + " taken away")
			v.Set(old)
		}
	case reflect.Struct:
		for i := 0; i < v.NumField(); i++ {
			every(t, name+"."+v.Type().Field(i).Name, v.Field(i), check)
		}
	case reflect.Slice:
		if v.Len() > 0 {
			if v.Type().Elem().Kind() != reflect.Uint8 && v.Type() != reflect.TypeOf([]*Layer{}) {
				every(t, name+"[0]", v.Index(0), check)
			}
			old := v.Slice(0, v.Len())
			v.Set(v.Slice(0, v.Len()-1))
			check(name + " shorter")
			v.Set(old)
		}
	case reflect.Map:
		if v.Len() > 0 {
			old := reflect.ValueOf(v.Interface())
			v.Set(reflect.MakeMap(v.Type()))
			check(name + " emptied")
			v.Set(old)
		}
	case reflect.Array:
		every(t, name+"[1]", v.Index(1), check)
	case reflect.String:
		old := v.String()
		v.SetString(old + "x")
		check(name)
		v.SetString(old)
	case reflect.Bool:
		v.SetBool(!v.Bool())
		check(name)
		v.SetBool(!v.Bool())
	case reflect.Int, reflect.Int64:
		v.SetInt(v.Int() + 1)
		check(name)
		v.SetInt(v.Int() - 1)
	case reflect.Float64:
		old := v.Float()
		v.SetFloat(old + 0.25)
		check(name)
		v.SetFloat(old)
	default:
		t.Fatalf("%s: a field of kind %v is not looked at", name, v.Kind())
	}
}

// A change to any field of a layer keeps it from being shared; without one it is.
func TestOnlyWhatHasNotChangedIsShared(t *testing.T) {
	old := fixtureScene(t)
	fields := 0
	for i := range old.Layers {
		c := old.Clone()
		Share(c, old)
		if c.Layers[i] != old.Layers[i] {
			t.Fatalf("%s has not changed and is not shared", old.Layers[i].Name)
		}
		c = old.Clone()
		share(c.Layers[i].Children, map[string]*Layer{"l3": old.Layers[1].Children[0]})
		every(t, old.Layers[i].Name, reflect.ValueOf(c.Layers[i]).Elem(), func(field string) {
			fields++
			if sameLayer(c.Layers[i], old.Layers[i]) {
				t.Errorf("%s has changed and would be shared", field)
			}
		})
		if !sameLayer(c.Layers[i], old.Layers[i]) {
			t.Fatalf("%s was not put back", old.Layers[i].Name)
		}
	}
	if fields < 160 {
		t.Errorf("only %d fields were changed", fields)
	}
	// A group whose child has changed is its own; the other children are shared.
	c := old.Clone()
	c.Layers[1].Children[0].Opacity = 0.125
	Share(c, old)
	if c.Layers[1] == old.Layers[1] || c.Layers[0] != old.Layers[0] {
		t.Error("sharing stops at the wrong layer")
	}
}

// Any change to a scene but for its layers, and any change to a layer's moves, children or identity, makes a whole check
// necessary; changes to a layer's own fields do not.
func TestOnlyOwnFieldsOfLayersAreCheckedAlone(t *testing.T) {
	old := fixtureScene(t)
	c := old.Clone()
	if !sameBut(c, old) {
		t.Fatal("a copy counts as changed")
	}
	layers := c.Layers
	fields := 0
	for i, v := 0, reflect.ValueOf(c).Elem(); i < v.NumField(); i++ {
		if name := v.Type().Field(i).Name; name != "Layers" {
			every(t, name, v.Field(i), func(field string) {
				fields++
				if sameBut(c, old) {
					t.Errorf("scene %s has changed unseen", field)
				}
			})
		}
	}
	for i, l := range layers {
		v := reflect.ValueOf(l).Elem()
		for _, name := range []string{"ID", "Thread", "Kind", "Moves", "Children"} {
			every(t, name, v.FieldByName(name), func(field string) {
				fields++
				if sameBut(c, old) {
					t.Errorf("layer %d: %s has changed unseen", i, field)
				}
			})
		}
		l.Opacity /= 2
		l.Place.X++
	}
	if !sameBut(c, old) || fields < 60 {
		t.Errorf("own fields count as more, or only %d fields were changed", fields)
	}
}

// What is found wrong by looking at heads alone is what is found by looking at everything.
func TestAWrongHeadIsRefusedEitherWay(t *testing.T) {
	p := fixtureProject(t)
	for name, wrong := range map[string]func(*Layer){
		"opacity": func(l *Layer) { l.Opacity = 2 }, "fill": func(l *Layer) { l.Fill.Kind = "wool" }, "place": func(l *Layer) { l.Place.X = 1e9 },
		"blend": func(l *Layer) { l.Blend = "wool" }, "blur": func(l *Layer) { l.Blur = -1 },
	} {
		q := *p
		q.Film.Scenes = append([]*Scene{p.Film.Scenes[0].Clone()}, p.Film.Scenes[1:]...)
		l := q.Film.Scenes[0].Layers[1].Children[0]
		if !q.headsOnly(p) || q.ValidateChange(p) != nil {
			t.Fatal("a copy is refused or counts as changed")
		}
		wrong(l)
		quick, whole := q.ValidateChange(p), q.Validate()
		if quick == nil || whole == nil || quick.Error() != whole.Error() {
			t.Errorf("%s: %v, and in full %v", name, quick, whole)
		}
	}
}
