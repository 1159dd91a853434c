package main

import (
	"os"
	"testing"
)

func TestThePageKnowsWhatTheCoreDeclares(t *testing.T) {
	raw, err := os.ReadFile("../../" + file)
	if err != nil || string(raw) != page() {
		t.Errorf("%s is stale (%v); go run ./scripts/schema", file, err)
	}
}
