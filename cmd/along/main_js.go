// Command along is the core on a device that is away from the server: WebAssembly, run in a worker of the page. It answers what
// needs no database, by the code that the server answers by.
package main

import (
	"encoding/json"
	"errors"
	"fmt"
	"runtime/debug"
	"syscall/js"

	"epitrope/internal/answers"
	"epitrope/internal/pack"
)

// said is an answer to the page: a status as HTTP has it, and the answer, or what was wrong.
func said(status int, text string) any { return map[string]any{"status": status, "text": text} }

func main() {
	debug.SetGCPercent(gcPercent)
	var device *answers.Device
	worker := js.Global().Get("epitrope")
	// begin(own): what the workshop has of its own, as JSON. It answers with what is wrong with that, or "".
	worker.Set("begin", js.FuncOf(func(_ js.Value, args []js.Value) any {
		var own pack.Workshop
		if err := json.Unmarshal([]byte(args[0].String()), &own); err != nil {
			return err.Error()
		}
		device = answers.NewDevice(own)
		return ""
	}))
	// ask(question, sent): both as JSON.
	worker.Set("ask", js.FuncOf(func(_ js.Value, args []js.Value) (out any) {
		defer func() {
			if fell := recover(); fell != nil {
				out = said(500, fmt.Sprint(fell)) // as the server: the next question may be answered
			}
		}()
		var q answers.Question
		if err := json.Unmarshal([]byte(args[0].String()), &q); err != nil {
			return said(400, err.Error())
		}
		text, err := device.Answer(q, []byte(args[1].String()))
		switch {
		case errors.Is(err, answers.ErrElsewhere):
			return said(404, err.Error())
		case err != nil:
			return said(422, err.Error())
		}
		return said(200, string(text))
	}))
	js.Global().Get("postMessage").Invoke(map[string]any{"ready": true})
	select {}
}

// gcPercent lets the heap grow fivefold between collections: there is one processor, and a plan's heap is small.
const gcPercent = 400
