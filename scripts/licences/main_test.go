package main

import (
	"os"
	"strings"
	"testing"
)

func TestEverythingThatShipsIsListed(t *testing.T) {
	list, err := shipped("../..")
	if err != nil {
		t.Fatal(err)
	}
	raw, err := os.ReadFile("../../docs/licences.md")
	if err != nil {
		t.Fatal(err)
	}
	if len(list) < 30 {
		t.Fatalf("only %d pieces were found", len(list))
	}
	for _, p := range list {
		if !strings.Contains(string(raw), "| "+p.name+" | "+p.version+" | "+p.licence+" |") {
			t.Errorf("%s %s (%s) ships and is not listed; run go run ./scripts/licences", p.name, p.version, p.licence)
		}
	}
}
