package main

import (
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"maps"
	"path/filepath"
	"reflect"
	"slices"
	"strings"
	"unicode/utf8"

	"github.com/go-json-experiment/json/jsontext"

	"capstan/core/caret"
	"capstan/core/delivery"
	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/fields"
	"capstan/core/gallery"
	"capstan/core/gesture"
	"capstan/core/heard"
	"capstan/core/intent/arrange"
	"capstan/core/intent/joining"
	"capstan/core/intent/moves"
	"capstan/core/intent/scenes"
	"capstan/core/intent/sounds"
	"capstan/core/overlay"
	"capstan/core/patch"
	"capstan/core/scope"
	"capstan/core/session"
	"capstan/core/sound"
	"capstan/core/view"
)

const answersFile = "web/src/engine/answers.ts"

// named are the types that the page gets from the engine by the names they have there; what they hold comes along by its own name.
var named = map[string]any{
	"Described": fields.All{}, "Field": fields.Field{}, "FieldOption": fields.Option{}, "Moment": scope.Moment{}, "Area": scope.Area{},
	"Film": view.Film{}, "Row": view.Row{}, "Selected": view.Selected{}, "Move": view.MoveView{}, "Many": view.Many{}, "Shared": view.Shared{},
	"Sounds": heard.Sounds{}, "SoundRow": heard.Row{}, "SoundSnap": sounds.Snap{}, "CaptionRow": heard.Caption{}, "MarkAt": heard.Mark{}, "Captioned": doc.Captioned{}, "Subtitles": sound.Subtitles{}, "SoundCorner": sound.Corner{}, "Level": sound.Level{}, "SoundPiece": sound.Piece{}, "Overlay": overlay.Overlay{}, "OverlayBox": overlay.Box{}, "OverlayPath": overlay.Path{}, "Ghost": overlay.Ghost{},
	"Under": overlay.Under{}, "All": overlay.All{}, "ShapeSign": overlay.ShapeSign{},
	"WritingView": caret.Writing{}, "PenView": gesture.PenView{}, "Seen": session.Seen{}, "Shown": session.Shown{}, "Held": session.Held{}, "Dragged": session.Dragged{}, "Drafted": session.Drafted{}, "Done": session.Done{},
	"Turn": view.Turn{}, "EasingCurve": view.EasingCurve{}, "Gallery": gallery.View{}, "GalleryRow": gallery.Row{}, "Card": gallery.Card{},
	"Target": moves.Target{}, "Meeting": moves.Meeting{}, "Snap": moves.Snap{}, "CopiedMoves": moves.CopiedMoves{}, "CopiedLayers": arrange.Copied{}, "CopiedScenes": scenes.Copied{},
	"Combining": joining.Combining{}, "Carried": scenes.Carried{}, "Delivery": session.Delivery{}, "Pairs": scenes.Pairs{}, "Mate": scenes.Mate{}, "PairOffer": scenes.Offer{}, "Join": edit.Join{}, "FileCell": delivery.Cell{}, "FileHold": delivery.Hold{}, "Offered": delivery.Offered{}, "FileKind": delivery.Kind{}, "Ask": delivery.Ask{}, "FileChoices": delivery.Choices{}, "FileMark": delivery.Mark{}, "FilePreset": delivery.Preset{}, "FileRange": delivery.Range{}, "Closed": delivery.Closed{}, "Failure": session.Failure{},
	"Change": patch.Change{}, "DocumentFilm": doc.Film{}, "DocumentMove": doc.Move{}, "DocumentScene": doc.Scene{}, "Look": doc.Look{}, "StrandTurn": doc.Strand{},
}

// choices are fields of a few words, by type and field.
var choices = map[string][]string{
	"Fill.Kind":     {doc.NoFill, doc.Solid, doc.Linear, doc.Radial, doc.PictureFill, doc.Texture},
	"Stroke.Side":   {"", doc.Inside, doc.Outside},
	"Layer.Mask":    {"", doc.Inside, doc.Outside},
	"Row.Mask":      {"", doc.Inside, doc.Outside},
	"Move.Kind":     {doc.Entrance, doc.Exit, doc.Loop, doc.MotionPath, doc.Change},
	"Text.Align":    {"", doc.Left, doc.Centre, doc.Right, doc.Justified},
	"Text.Room":     {"", doc.FixedRoom, doc.FitRoom},
	"Text.Stand":    {"", doc.Middle, doc.Bottom},
	"Run.Case":      {"", doc.UpperCase, doc.LowerCase, doc.TitleCase},
	"Run.Raise":     {"", doc.Super, doc.Sub},
	"Snap.Part":     {"", "begin", "end"},
	"Strand.Turn":   {"", doc.TurnShort, doc.TurnClockwise, doc.TurnAnticlockwise, doc.TurnNumbered},
	"Marker.Style":  {doc.Dots, doc.Bars, doc.Count},
	"Field.Control": {fields.Number, fields.Choice, fields.Signs, fields.Direction, fields.List, fields.Colour, fields.Move, fields.Layer},
	"Row.Use":       {doc.Music, doc.Noise, doc.Voice},
	"Row.Curve":     {doc.EvenPower, doc.EvenLine, doc.EvenLevel},
	"Guide.Axis":    {doc.Upright, doc.Level},
}

// always are pointers that are never nil.
var always = []string{"Selected.Layer"}

// shaped are fields whose Go type does not tell what is in them.
var shaped = map[string]string{"Shared.Move": "Partial<Move>", "Done.Command": "Command | null"}

// maker writes Go types as the page's.
type maker struct {
	root  string // of the project
	names map[reflect.Type]string
	out   map[string]string // declarations by name
	notes map[string]string // what is said of types and fields in the core, by package, type and field
	read  map[string]bool   // packages whose notes are in
	err   error             // of reading them
}

func answers(root string) (string, error) {
	m := &maker{root: root, names: map[reflect.Type]string{}, out: map[string]string{}, notes: map[string]string{}, read: map[string]bool{}}
	for name, v := range named {
		m.names[reflect.TypeOf(v)] = name
	}
	for _, name := range slices.Sorted(maps.Keys(named)) {
		m.of(reflect.TypeOf(named[name]))
	}
	var b strings.Builder
	commands := edit.Known()
	b.WriteString("\n" + remark("", "A change that a person would name, by its op: core/edit says what each does.") + "export type Command =\n")
	for _, op := range slices.Sorted(maps.Keys(commands)) {
		t := reflect.TypeOf(commands[op])
		line := fmt.Sprintf("  | { op: '%s'; film?: string%s }\n", op, m.fields(t, true, "; "))
		if len(line) > 121 {
			line = fmt.Sprintf("  | {\n      op: '%s'\n      film?: string%s\n    }\n", op, m.fields(t, true, "\n      "))
		}
		b.WriteString(line)
	}
	b.WriteString("\n" + remark("", "What can be asked for, by name, with what it is told; all of it may be left away. "+
		"core/intent says what comes of each.") + "export interface Intents {\n")
	for _, name := range slices.Sorted(maps.Keys(session.Asked)) {
		t := reflect.TypeOf(session.Asked[name].Takes)
		line := fmt.Sprintf("  '%s': %s\n", name, m.written(t, true))
		if len(line) > 121 {
			line = fmt.Sprintf("  '%s': {%s\n  }\n", name, m.fields(t, true, "\n    "))
		}
		b.WriteString(line)
	}
	b.WriteString("}\n")
	var all strings.Builder
	all.WriteString("// Written by go run ./scripts/schema from the types of the core; a test fails where it is stale.\n")
	all.WriteString("\n" + remark("", "What becomes of fields: a value takes the place of what was there, "+
		"an object changes it field by field, null takes it away.") + "export type Fields = object | null\n")
	for _, name := range slices.Sorted(maps.Keys(m.out)) {
		all.WriteString("\n" + m.out[name])
	}
	all.WriteString(b.String())
	return all.String(), m.err
}

// of returns the name of a type in the page; types of fields are declared as they are met.
func (m *maker) of(t reflect.Type) string { return m.written(t, false) }

// written is a type in the page; of what is told every field may be left away.
func (m *maker) written(t reflect.Type, told bool) string {
	switch t {
	case reflect.TypeFor[jsontext.Value]():
		return "unknown"
	case reflect.TypeFor[edit.Fields]():
		return "Fields"
	case reflect.TypeFor[edit.Commands]():
		return "Command[]"
	}
	switch t.Kind() {
	case reflect.String:
		return "string"
	case reflect.Bool:
		return "boolean"
	case reflect.Int, reflect.Int64, reflect.Uint32, reflect.Float64, reflect.Uint64, reflect.Int32:
		return "number"
	case reflect.Interface:
		return "unknown"
	case reflect.Pointer:
		return m.written(t.Elem(), told)
	case reflect.Slice:
		return element(m.written(t.Elem(), told)) + "[]"
	case reflect.Array:
		return "[" + strings.Repeat(m.written(t.Elem(), told)+", ", t.Len()-1) + m.written(t.Elem(), told) + "]"
	case reflect.Map:
		return "Record<" + m.of(t.Key()) + ", " + m.written(t.Elem(), told) + ">"
	case reflect.Struct:
		if t.Name() == "" || told && m.names[t] == "" && !strings.HasSuffix(t.PkgPath(), "/doc") {
			return "{" + strings.TrimSuffix(strings.TrimPrefix(m.fields(t, told, "; "), ";"), ";") + " }"
		}
		name := m.names[t]
		if name == "" {
			name = t.Name()
			for other, taken := range m.names {
				if taken == name && other != t {
					panic(fmt.Sprint(t, " and ", other, " are both ", name, " in the page: give one a name of its own"))
				}
			}
			m.names[t] = name
		}
		if _, ok := m.out[name]; !ok {
			m.out[name] = "" // met: it may hold itself
			head := "export interface " + name
			if within := m.within(t); len(within) > 0 {
				head += " extends " + strings.Join(within, ", ")
			}
			body := m.fields(t, false, "\n  ")
			if note := m.note(t, ""); note != "" {
				head = remark("", note) + head
			}
			m.out[name] = head + " {" + body + "\n}\n"
		}
		return name
	}
	panic(fmt.Sprint("a type the page cannot have: ", t))
}

// within are the names of the structs that lie in another without a name.
func (m *maker) within(t reflect.Type) (names []string) {
	for i := range t.NumField() {
		if f := t.Field(i); f.Anonymous && f.Tag.Get("json") == "" {
			names = append(names, m.of(f.Type))
		}
	}
	return names
}

func element(s string) string {
	if strings.ContainsAny(s, "|") {
		return "(" + s + ")"
	}
	return s
}

// fields are those of a struct, each behind a mark; those of what lies in it without a name stand among them.
func (m *maker) fields(t reflect.Type, told bool, mark string) string {
	var b strings.Builder
	for i := range t.NumField() {
		f := t.Field(i)
		tag, options, _ := strings.Cut(f.Tag.Get("json"), ",")
		if strings.Contains(options, "embed") || tag == "-" {
			continue
		}
		if f.Anonymous && tag == "" {
			inner := f.Type
			if inner.Kind() == reflect.Pointer {
				inner = inner.Elem()
			}
			if !strings.HasPrefix(mark, "\n") { // else it is extended
				b.WriteString(m.fields(inner, told, mark))
			}
			continue
		}
		if tag == "" {
			continue
		}
		what := m.written(f.Type, told)
		if c := choices[t.Name()+"."+f.Name]; c != nil {
			if strings.Contains(options, "omit") {
				c = slices.DeleteFunc(slices.Clone(c), func(s string) bool { return s == "" })
			}
			what = "'" + strings.Join(c, "' | '") + "'"
		}
		if w := shaped[t.Name()+"."+f.Name]; w != "" {
			what = w
		}
		leave := ""
		switch {
		case told, strings.Contains(options, "omit"):
			leave = "?"
			if told && f.Type.Kind() == reflect.Pointer {
				what += " | null"
			}
		case f.Type.Kind() == reflect.Pointer && !slices.Contains(always, t.Name()+"."+f.Name):
			what += " | null"
		}
		b.WriteString(mark)
		if note := m.note(t, f.Name); note != "" && strings.HasPrefix(mark, "\n") {
			b.WriteString(strings.TrimLeft(remark(strings.TrimPrefix(mark, "\n"), note), " ") + strings.TrimPrefix(mark, "\n"))
		}
		b.WriteString(tag + leave + ": " + what)
	}
	return b.String()
}

// note is what the core says of a type, or of a field of it.
func (m *maker) note(t reflect.Type, field string) string {
	if pkg := t.PkgPath(); !m.read[pkg] && pkg != "" && m.err == nil {
		m.read[pkg] = true
		m.err = m.take(pkg)
	}
	return m.notes[t.PkgPath()+"."+t.Name()+"."+field]
}

// take takes in what is said of the structs of a package and their fields.
func (m *maker) take(pkg string) error {
	files, err := filepath.Glob(filepath.Join(m.root, strings.TrimPrefix(pkg, "capstan/"), "*.go"))
	if err != nil {
		return err
	}
	for _, name := range files {
		f, err := parser.ParseFile(token.NewFileSet(), name, nil, parser.ParseComments)
		if err != nil {
			return err
		}
		for _, d := range f.Decls {
			if g, ok := d.(*ast.GenDecl); ok {
				m.declared(pkg, g)
			}
		}
	}
	return nil
}

// declared takes in what is said of the structs of one declaration.
func (m *maker) declared(pkg string, d *ast.GenDecl) {
	for _, s := range d.Specs {
		t, ok := s.(*ast.TypeSpec)
		if !ok {
			continue
		}
		st, ok := t.Type.(*ast.StructType)
		if !ok {
			continue
		}
		at := pkg + "." + t.Name.Name + "."
		m.notes[at] = line(d.Doc)
		for _, f := range st.Fields.List {
			for _, name := range f.Names {
				m.notes[at+name.Name] = line(f.Doc) + line(f.Comment)
			}
		}
	}
}

func line(c *ast.CommentGroup) string {
	return strings.Join(strings.Fields(strings.ReplaceAll(c.Text(), "*/", "")), " ")
}

// Remark is a comment of the page's before what stands at an indent, in lines of at most 120 columns.
func remark(indent, text string) string {
	if line := indent + "/** " + text + " */\n"; utf8.RuneCountInString(line) <= 121 {
		return line
	}
	b := indent + "/**\n" + indent + " *"
	at := utf8.RuneCountInString(indent) + 2
	for _, word := range strings.Fields(text) {
		if at+1+utf8.RuneCountInString(word) > 120 {
			b += "\n" + indent + " *"
			at = utf8.RuneCountInString(indent) + 2
		}
		b += " " + word
		at += 1 + utf8.RuneCountInString(word)
	}
	return b + "\n" + indent + " */\n"
}
