// Package hardy drives every answer on documents drawn at random from the whole range that validation lets
// through, and holds each to what must be so of any job: it is answered, in good time, with finite figures that
// balance, and every answer tells of one vehicle. It holds tests alone.
package hardy
