;; Pan, and the shares that go to room and echo: what sendLoop.ts does, to the same bits. `npm run wasm` makes sendLoopWasm.ts of it.
;; Buses are f64; all is given by where it lies in the memory, in bytes.
(module
  (import "sound" "memory" (memory 1))

  ;; Pan, and the shares that go to room and echo, none of which moves: two samples at a time, and the last one alone.
  (func (export "send")
    (param $frames i32) (param $left i32) (param $right i32) (param $room i32) (param $echo i32)
    (param $l f64) (param $r f64) (param $toRoom f64) (param $toEcho f64)
    (local $pairs i32) (local $a v128) (local $b v128) (local $x f64) (local $y f64)
    (local.set $pairs (i32.add (local.get $left) (i32.shl (i32.and (local.get $frames) (i32.const -2)) (i32.const 3))))
    (block $over
      (loop $next
        (br_if $over (i32.ge_u (local.get $left) (local.get $pairs)))
        (local.set $a (f64x2.mul (v128.load (local.get $left)) (f64x2.splat (local.get $l))))
        (local.set $b (f64x2.mul (v128.load (local.get $right)) (f64x2.splat (local.get $r))))
        (v128.store (local.get $left) (local.get $a))
        (v128.store (local.get $right) (local.get $b))
        (local.set $a (f64x2.add (local.get $a) (local.get $b)))
        (v128.store (local.get $room)
          (f64x2.add (v128.load (local.get $room)) (f64x2.mul (local.get $a) (f64x2.splat (local.get $toRoom)))))
        (v128.store (local.get $echo)
          (f64x2.add (v128.load (local.get $echo)) (f64x2.mul (local.get $a) (f64x2.splat (local.get $toEcho)))))
        (local.set $left (i32.add (local.get $left) (i32.const 16)))
        (local.set $right (i32.add (local.get $right) (i32.const 16)))
        (local.set $room (i32.add (local.get $room) (i32.const 16)))
        (local.set $echo (i32.add (local.get $echo) (i32.const 16)))
        (br $next)))
    (if (i32.and (local.get $frames) (i32.const 1))
      (then
        (local.set $x (f64.mul (f64.load (local.get $left)) (local.get $l)))
        (local.set $y (f64.mul (f64.load (local.get $right)) (local.get $r)))
        (f64.store (local.get $left) (local.get $x))
        (f64.store (local.get $right) (local.get $y))
        (local.set $x (f64.add (local.get $x) (local.get $y)))
        (f64.store (local.get $room) (f64.add (f64.load (local.get $room)) (f64.mul (local.get $x) (local.get $toRoom))))
        (f64.store (local.get $echo) (f64.add (f64.load (local.get $echo)) (f64.mul (local.get $x) (local.get $toEcho)))))))
)
