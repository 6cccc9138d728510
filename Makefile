# Two commands do everything: make demo, make test.
export CGO_ENABLED = 0
ADDR ?= 127.0.0.1:4761
WEB = $(shell find web/src web/public web/scripts -type f 2>/dev/null) web/index.html web/vite.config.ts web/package-lock.json NOTICE

.PHONY: demo release test thorough bench build check unit interface hostile fuzz mutants types notice clean

demo: bin/undaris
	./bin/undaris demo --addr $(ADDR)

build: bin/undaris

test: check unit interface

# One static binary with the front end inside.
bin/undaris: web/dist/index.html $(shell find . -name '*.go' -not -path './web/node_modules/*') go.mod go.sum
	go build -tags nomsgpack -trimpath -ldflags '-s -w' -o $@ ./cmd/undaris

web/node_modules/.installed: web/package-lock.json
	cd web && npm ci --no-fund --no-audit
	touch $@

web/dist/index.html: web/node_modules/.installed $(WEB)
	cd web && npm run build
	touch $@

# The front end's types are made from the API; they are committed, and checked to be fresh.
types: web/node_modules/.installed
	mkdir -p bin && go run ./cmd/undaris openapi > bin/openapi.json
	cd web && npm run types
	go run ./cmd/undaris facts > web/src/api/facts.ts

# The licences of everything the binary carries; committed, shown under Help, and checked to be fresh.
notice: web/node_modules/.installed
	mkdir -p bin && node web/scripts/notice.mjs > bin/NOTICE && mv bin/NOTICE NOTICE

check: bin/undaris
	node web/scripts/notice.mjs > bin/NOTICE && cmp bin/NOTICE NOTICE || { echo 'what the binary carries changed; run make notice'; exit 1; }
	test -z "$$(gofmt -l $$(git ls-files '*.go'))" || { gofmt -l $$(git ls-files '*.go'); echo 'run gofmt'; exit 1; }
	go vet ./...
	go tool staticcheck ./...
	./bin/undaris openapi > bin/openapi.json
	cd web && npx openapi-typescript ../bin/openapi.json -o ../bin/schema.d.ts
	cmp bin/schema.d.ts web/src/api/schema.d.ts || { echo 'the API changed; run make types'; exit 1; }
	./bin/undaris facts | cmp - web/src/api/facts.ts || { echo 'the core’s numbers changed; run make types'; exit 1; }
	cd web && npm run check

# The page's tests ask the program itself.
unit: bin/undaris
	cd web && npm test
	go test $$(go list ./... | grep -v -e /e2e -e /hostile)

# The real application in Debian's Chromium.
interface: web/dist/index.html
	command -v chromium >/dev/null || { apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq chromium; }
	command -v chromium-headless-shell >/dev/null || { apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq chromium-headless-shell; } || true
	cd web && npm run readers && npm run ear
	go test ./e2e/studio
	go run ./e2e/run

# Attacks on the program itself, each with its figure. KILLS=1000 kills it as often.
hostile: web/dist/index.html
	go test -count=1 -v -timeout 30m ./hostile

# Every exercise over every chord in every position, on every string set, at every pace;
# the ear at every tempo; and whatever two goroutines could reach at once (that needs a C compiler).
thorough: web/dist/index.html
	cd web && npm run ear
	EVERY=1 go test -count=1 -timeout 90m -v -run TheEar ./e2e/studio
	EVERY=1 go test -count=1 -timeout 30m -v -run 'EveryRoom|EveryLineAndLick' ./e2e
	EVERY=1 go test -count=1 -v -run 'Words|Finger|Untold|Traits|Rest|Rhythm' ./core/line
	EVERY=1 go test -count=1 ./core/band
	EVERY=1 go test -count=1 -timeout 90m -run 'EveryExercise|Cannot|Choices|EndAtRest|Timed|BadGround' ./core/exercise
	EVERY=1 go test -count=1 -run TheHandPlays ./demo
	CGO_ENABLED=1 go test -race -count=1 -timeout 60m ./core/chart ./core/line ./core/ear ./core/judge ./server ./store

bench: web/dist/index.html
	go test -run '^$$' -bench . -benchmem ./core/... ./store ./server ./e2e

# Archives for Linux, macOS and Windows, with checksums, in bin/release.
release: web/dist/index.html
	go run ./release

# Small faults put into the program, one at a time: how many does no test notice?
SEED ?= 1
FAULTS ?= 200
mutants: bin/undaris
	go run ./mutants -seed $(SEED) -faults $(FAULTS)

fuzz:
	go test -run '^$$' -fuzz FuzzParse -fuzztime 60s ./core/harmony
	go test -run '^$$' -fuzz FuzzHear -fuzztime 60s ./core/ear
	go test -run '^$$' -fuzz FuzzRead -fuzztime 60s ./core/form
	go test -run '^$$' -fuzz FuzzRead -fuzztime 60s ./formats/midi
	go test -run '^$$' -fuzz FuzzRead -fuzztime 60s ./formats/musicxml
	go test -run '^$$' -fuzz FuzzRead -fuzztime 60s ./formats/tabtext
	go test -run '^$$' -fuzz FuzzOpen -fuzztime 60s ./server

clean:
	rm -rf bin web/node_modules
	find web/dist -mindepth 1 -not -name .keep -delete
