package edit_test

import (
	"fmt"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/frame"
	"capstan/core/text"
)

// A command makes a new document and a patch; the patch turned round undoes it.
func ExampleApply() {
	p := doc.NewProject("kite-day", "Kite Day", 1920, 1080, "first")
	q, changes, err := edit.Apply(p, &edit.SetScenes{IDs: []string{"first"}, Patch: edit.Fields{"name": "On the pier"}}, frame.Assets{Fonts: &text.Book{}})
	if err != nil {
		fmt.Println(err)
		return
	}
	fmt.Println(q.Film.Scenes[0].Name, "/", p.Film.Scenes[0].Name)
	fmt.Println(changes[0].Part, changes[0].Field, string(changes[0].After))
	back, err := changes.Inverse().Apply(q)
	fmt.Println(back.Film.Scenes[0].Name, err)
	// Output:
	// On the pier / Scene 1
	// scene/first name "On the pier"
	// Scene 1 <nil>
}
