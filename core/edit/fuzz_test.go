package edit_test

import (
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/demo"
)

// Whatever a command says, it is carried out whole, leaving a sound document whose patch undoes it, or refused in words with nothing
// changed.
func FuzzCommand(f *testing.F) {
	for _, c := range []string{
		`{"op":"project.rename","name":"x"}`,
		`{"op":"layer.set","set":[{"id":"s1-l11","patch":{"place":{"x":1e9},"fill":{"kind":"linear","gradient":{"stops":[]}}}}]}`,
		`{"op":"layer.set","set":[{"id":"s1-l11","patch":{"stroke":{"fill":{"kind":"colour","colour":"#fff"},"width":3,"dash":[1,2]}}}]}`,
		`{"op":"layer.delete","ids":["s1-l1","s1-l1"]}`, `{"op":"layer.group","ids":[],"id":"g"}`, `{"op":"scene.delete","ids":["lift-off"]}`,
		`{"op":"layer.duplicate","ids":["s1-l11"],"seed":"s","dx":1,"dy":2}`, `{"op":"batch","commands":[{"op":"batch","commands":[null]}]}`,
		`{"op":"move.set","set":[{"id":"s1-m12","patch":{"start":{"when":"ends","of":"s1-m12"}}}]}`, `{"op":"patch","changes":[{"part":"film","field":"width","before":1,"after":2}]}`,
		`{"op":"film.set","patch":{"rate":{"num":0}}}`, `{"op":"layer.set","set":[{"id":"s1-l11","patch":{"mask":"inside"}}]}`,
		`{"op":"scene.add","id":"x","index":0,"name":"x","aside":true}`, `{"op":"scene.set","ids":["lift-off"],"patch":{"aside":true}}`,
		`{"op":"layer.group","ids":["s1-l11"],"id":"g","thread":"g","name":"g","mask":"round"}`, `{"op":"layer.scale","id":"s1-l11","kx":2,"ky":2,"grows":["all"]}`,
		`{"op":"scene.order","ids":["x"]}`, `{}`, `null`, `[1,2]`, `{"op":7}`,
	} {
		f.Add([]byte(c))
	}
	project := demo.Opener(strings.Repeat("a", 64), &doc.Media{Name: "sky.jpg", Type: "image/jpeg", Bytes: 1, Width: 1920, Height: 1080, Opaque: true})
	before, err := project.Write()
	if err != nil {
		f.Fatal(err)
	}

	f.Fuzz(func(t *testing.T, raw []byte) {
		after, patch, err := carry(project, string(raw))
		if now, _ := project.Write(); string(now) != string(before) {
			t.Fatalf("%s changed the document it was given", raw)
		}
		if err != nil {
			if err.Error() == "" {
				t.Fatal("refused without a word")
			}
			return
		}
		if err := after.Validate(); err != nil {
			t.Fatalf("%s leaves a document that breaks a rule: %v", raw, err)
		}
		back, err := patch.Inverse().Apply(after)
		if err != nil {
			t.Fatalf("%s cannot be undone: %v", raw, err)
		}
		if undone, _ := back.Write(); string(undone) != string(before) {
			t.Fatalf("%s undone is another document", raw)
		}
	})
}
