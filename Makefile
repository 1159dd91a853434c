# Capstan. The two commands a newcomer needs are make demo and make test.
SHELL := /bin/bash
GO ?= go
WEB := web
WASM := $(WEB)/public/engine.wasm
DATA ?= data
ADDR ?= 127.0.0.1:4870
PACK ?= 11
WRITTEN := bench cmd core demo e2e library scripts studio web/*.go

.PHONY: packed checks screenshots demo test build page engine deps dev lint fuzz attack soak bench clean

demo: build            ## build everything and start Capstan with the demo project
	./bin/capstan demo --data $(DATA) --addr $(ADDR)

build: page            ## leaves bin/capstan
	$(GO) build -o bin/capstan ./cmd/capstan

page: deps packed
	cd $(WEB) && npm run --silent build
	node scripts/pack.mjs $(PACK) place

packed: engine         ## the engine is compressed when it is built, as far as it goes
	node scripts/pack.mjs $(PACK)

# Calls that are written out in place make the engine larger to send; they are where they make it faster (docs/measured.md).
INLINED := runtime/... internal/... math/... sync/... strings strconv bytes slices sort maps unicode/... github.com/go-json-experiment/... capstan/core/...
CALLED := capstan/core/intent/... $(addprefix capstan/core/,fields gallery words edit heard anim likeness snap series delivery patch typeface view session caret plain scope gesture ink pen sum combine variant doc)
engine:
	@mkdir -p $(WEB)/public
	GOOS=js GOARCH=wasm $(GO) build -trimpath -gcflags=all=-l $(INLINED:%=-gcflags=%=) $(CALLED:%=-gcflags=%=-l) -ldflags="-s -w" -o $(WASM) ./cmd/engine
	cp "$$($(GO) env GOROOT)/lib/wasm/wasm_exec.js" $(WEB)/public/wasm_exec.js

deps: $(WEB)/node_modules/.installed
	./scripts/deps.sh run

$(WEB)/node_modules/.installed: $(WEB)/package-lock.json
	cd $(WEB) && npm ci --no-audit --no-fund
	@touch $@

test: deps             ## builds, then all tests, the browser's too
	./scripts/deps.sh test
	$(MAKE) --no-print-directory -j2 packed checks
	$(MAKE) --no-print-directory build
	cd $(WEB) && npm run --silent lint
	$(GO) test -timeout 40m ./...

checks:                ## how all Go code is written
	@test -z "$$(gofmt -l $(WRITTEN))" || { gofmt -l $(WRITTEN); exit 1; }
	$(GO) vet ./... && GOOS=js GOARCH=wasm $(GO) vet ./cmd/engine
	$(GO) build -C tools -o ../bin/staticcheck honnef.co/go/tools/cmd/staticcheck
	./bin/staticcheck ./...

lint: deps checks
	cd $(WEB) && npm run --silent lint && npx tsc --noEmit

dev: PACK = 5
dev: build             ## the server on $(ADDR) and the page with reload in front of it
	./bin/capstan demo --data $(DATA) --addr $(ADDR) & trap "kill $$!" EXIT; cd $(WEB) && CAPSTAN_ADDR=$(ADDR) CAPSTAN_DATA=$(abspath $(DATA)) npm run dev

bench: build           ## what exports and the page cost, one line a figure: name value limit
	$(GO) run ./bench
	CAPSTAN_BENCH=1 $(GO) test -count=1 -v -run "TestPageSpeed|TestArrangingSpeed" ./e2e | grep -v '^[=-]\|^ok\|^PASS\|INFO'
	$(GO) test -run '^$$' -bench . -benchtime 1s ./core/...

attack: build          ## bad and heavy things sent to a running server
	CAPSTAN_ATTACK=1 $(GO) test -count=1 -v -run "NothingThatIsSent|Barrage" ./e2e | grep -v INFO

SOAK ?= 10m
soak: build            ## a long day: edits, exports, power cuts; memory and open files before and after
	CAPSTAN_SOAK=$(SOAK) $(GO) test -count=1 -timeout 2h -v -run ALongDay ./e2e | grep -v INFO

fuzz:
	$(GO) test -run '^$$' -fuzz FuzzFont -fuzztime 60s -fuzzminimizetime 10x ./core/text
	$(GO) test -run '^$$' -fuzz FuzzTake -fuzztime 60s -fuzzminimizetime 10x ./core/typeface
	$(GO) test -run '^$$' -fuzz FuzzCombine -fuzztime 60s ./core/combine
	$(GO) test -run '^$$' -fuzz FuzzParseData -fuzztime 60s ./core/geom
	$(GO) test -run '^$$' -fuzz FuzzRead -fuzztime 60s ./core/doc
	$(GO) test -run '^$$' -fuzz FuzzCommand -fuzztime 60s ./core/edit
	$(GO) test -run '^$$' -fuzz FuzzStroke -fuzztime 60s ./core/geom
	$(GO) test -run '^$$' -fuzz FuzzPaint -fuzztime 60s ./core/raster
	$(GO) test -run '^$$' -fuzz FuzzIntake -fuzztime 60s -fuzzminimizetime 10x ./studio/media
	$(GO) test -run '^$$' -fuzz FuzzBundle -fuzztime 60s -fuzzminimizetime 10x ./studio/bundle

clean:
	rm -rf bin $(WEB)/node_modules $(WEB)/dist/assets $(WEB)/dist/index.html $(WEB)/dist/engine.wasm.* $(WASM)

screenshots: build    ## refresh docs/screenshots from the demo data
	mkdir -p docs/screenshots
	CAPSTAN_SHOTS=$(CURDIR)/docs/screenshots $(GO) test -count=1 -run TestScreenshots ./e2e
