package main

import (
	"os"
	"testing"
)

func TestThePageKnowsWhatTheCoreDeclares(t *testing.T) {
	text, err := answers("../..")
	if err != nil {
		t.Fatal(err)
	}
	for name, want := range map[string]string{file: page(), answersFile: text} {
		if raw, err := os.ReadFile("../../" + name); err != nil || string(raw) != want {
			t.Errorf("%s is stale (%v); go run ./scripts/schema", name, err)
		}
	}
}
