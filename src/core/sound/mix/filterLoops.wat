;; Filters of the mix, none of which moves, left and right at once: what filterLoops.ts does, to the same bits. `npm run wasm` makes filterLoopsWasm.ts of it.
;; Buses are f64; all is given by where it lies in the memory, in bytes. What moves with each sample, and what is held from one to the next, is
;; loaded first and stored last: lanes are left and right.
(module
  (import "sound" "memory" (memory 1))

  ;; Three filters with trapezoidal integrators, one after the other, of which none moves: while one waits for its last sample, the next one works.
  ;; Numbers of each: a1, a2, a3, m0, m1, m2, six steps that are not looked at, then both integrators as pairs of lanes.
  (func (export "filter3")
    (param $frames i32) (param $left i32) (param $right i32) (param $numbers i32)
    (local $end i32) (local $x v128) (local $above v128) (local $band v128) (local $low v128)
    (local $a1a v128) (local $a2a v128) (local $a3a v128) (local $m0a v128) (local $m1a v128) (local $m2a v128) (local $s1a v128) (local $s2a v128)
    (local $a1b v128) (local $a2b v128) (local $a3b v128) (local $m0b v128) (local $m1b v128) (local $m2b v128) (local $s1b v128) (local $s2b v128)
    (local $a1c v128) (local $a2c v128) (local $a3c v128) (local $m0c v128) (local $m1c v128) (local $m2c v128) (local $s1c v128) (local $s2c v128)
    (local.set $a1a (v128.load64_splat offset=0 (local.get $numbers)))
    (local.set $a2a (v128.load64_splat offset=8 (local.get $numbers)))
    (local.set $a3a (v128.load64_splat offset=16 (local.get $numbers)))
    (local.set $m0a (v128.load64_splat offset=24 (local.get $numbers)))
    (local.set $m1a (v128.load64_splat offset=32 (local.get $numbers)))
    (local.set $m2a (v128.load64_splat offset=40 (local.get $numbers)))
    (local.set $s1a (v128.load offset=96 (local.get $numbers)))
    (local.set $s2a (v128.load offset=112 (local.get $numbers)))
    (local.set $a1b (v128.load64_splat offset=128 (local.get $numbers)))
    (local.set $a2b (v128.load64_splat offset=136 (local.get $numbers)))
    (local.set $a3b (v128.load64_splat offset=144 (local.get $numbers)))
    (local.set $m0b (v128.load64_splat offset=152 (local.get $numbers)))
    (local.set $m1b (v128.load64_splat offset=160 (local.get $numbers)))
    (local.set $m2b (v128.load64_splat offset=168 (local.get $numbers)))
    (local.set $s1b (v128.load offset=224 (local.get $numbers)))
    (local.set $s2b (v128.load offset=240 (local.get $numbers)))
    (local.set $a1c (v128.load64_splat offset=256 (local.get $numbers)))
    (local.set $a2c (v128.load64_splat offset=264 (local.get $numbers)))
    (local.set $a3c (v128.load64_splat offset=272 (local.get $numbers)))
    (local.set $m0c (v128.load64_splat offset=280 (local.get $numbers)))
    (local.set $m1c (v128.load64_splat offset=288 (local.get $numbers)))
    (local.set $m2c (v128.load64_splat offset=296 (local.get $numbers)))
    (local.set $s1c (v128.load offset=352 (local.get $numbers)))
    (local.set $s2c (v128.load offset=368 (local.get $numbers)))
    (local.set $end (i32.add (local.get $left) (i32.shl (local.get $frames) (i32.const 3))))
    (loop $next
      (local.set $x (v128.load64_lane 1 (local.get $right) (v128.load64_zero (local.get $left))))
      (local.set $above (f64x2.sub (local.get $x) (local.get $s2a)))
      (local.set $band
        (f64x2.add (f64x2.mul (local.get $a1a) (local.get $s1a)) (f64x2.mul (local.get $a2a) (local.get $above))))
      (local.set $low
        (f64x2.add
          (f64x2.add (local.get $s2a) (f64x2.mul (local.get $a2a) (local.get $s1a)))
          (f64x2.mul (local.get $a3a) (local.get $above))))
      (local.set $s1a (f64x2.sub (f64x2.add (local.get $band) (local.get $band)) (local.get $s1a)))
      (local.set $s2a (f64x2.sub (f64x2.add (local.get $low) (local.get $low)) (local.get $s2a)))
      (local.set $x
        (f64x2.add
          (f64x2.add (f64x2.mul (local.get $m0a) (local.get $x)) (f64x2.mul (local.get $m1a) (local.get $band)))
          (f64x2.mul (local.get $m2a) (local.get $low))))
      (local.set $above (f64x2.sub (local.get $x) (local.get $s2b)))
      (local.set $band
        (f64x2.add (f64x2.mul (local.get $a1b) (local.get $s1b)) (f64x2.mul (local.get $a2b) (local.get $above))))
      (local.set $low
        (f64x2.add
          (f64x2.add (local.get $s2b) (f64x2.mul (local.get $a2b) (local.get $s1b)))
          (f64x2.mul (local.get $a3b) (local.get $above))))
      (local.set $s1b (f64x2.sub (f64x2.add (local.get $band) (local.get $band)) (local.get $s1b)))
      (local.set $s2b (f64x2.sub (f64x2.add (local.get $low) (local.get $low)) (local.get $s2b)))
      (local.set $x
        (f64x2.add
          (f64x2.add (f64x2.mul (local.get $m0b) (local.get $x)) (f64x2.mul (local.get $m1b) (local.get $band)))
          (f64x2.mul (local.get $m2b) (local.get $low))))
      (local.set $above (f64x2.sub (local.get $x) (local.get $s2c)))
      (local.set $band
        (f64x2.add (f64x2.mul (local.get $a1c) (local.get $s1c)) (f64x2.mul (local.get $a2c) (local.get $above))))
      (local.set $low
        (f64x2.add
          (f64x2.add (local.get $s2c) (f64x2.mul (local.get $a2c) (local.get $s1c)))
          (f64x2.mul (local.get $a3c) (local.get $above))))
      (local.set $s1c (f64x2.sub (f64x2.add (local.get $band) (local.get $band)) (local.get $s1c)))
      (local.set $s2c (f64x2.sub (f64x2.add (local.get $low) (local.get $low)) (local.get $s2c)))
      (local.set $x
        (f64x2.add
          (f64x2.add (f64x2.mul (local.get $m0c) (local.get $x)) (f64x2.mul (local.get $m1c) (local.get $band)))
          (f64x2.mul (local.get $m2c) (local.get $low))))
      (v128.store64_lane 0 (local.get $left) (local.get $x))
      (v128.store64_lane 1 (local.get $right) (local.get $x))
      (local.set $left (i32.add (local.get $left) (i32.const 8)))
      (local.set $right (i32.add (local.get $right) (i32.const 8)))
      (br_if $next (i32.lt_u (local.get $left) (local.get $end))))
    (v128.store offset=96 (local.get $numbers) (local.get $s1a))
    (v128.store offset=112 (local.get $numbers) (local.get $s2a))
    (v128.store offset=224 (local.get $numbers) (local.get $s1b))
    (v128.store offset=240 (local.get $numbers) (local.get $s2b))
    (v128.store offset=352 (local.get $numbers) (local.get $s1c))
    (v128.store offset=368 (local.get $numbers) (local.get $s2c)))

  ;; One such filter alone.
  (func (export "filter1")
    (param $frames i32) (param $left i32) (param $right i32) (param $numbers i32)
    (local $end i32) (local $x v128) (local $above v128) (local $band v128) (local $low v128)
    (local $a1 v128) (local $a2 v128) (local $a3 v128) (local $m0 v128) (local $m1 v128) (local $m2 v128) (local $s1 v128) (local $s2 v128)
    (local.set $a1 (v128.load64_splat offset=0 (local.get $numbers)))
    (local.set $a2 (v128.load64_splat offset=8 (local.get $numbers)))
    (local.set $a3 (v128.load64_splat offset=16 (local.get $numbers)))
    (local.set $m0 (v128.load64_splat offset=24 (local.get $numbers)))
    (local.set $m1 (v128.load64_splat offset=32 (local.get $numbers)))
    (local.set $m2 (v128.load64_splat offset=40 (local.get $numbers)))
    (local.set $s1 (v128.load offset=96 (local.get $numbers)))
    (local.set $s2 (v128.load offset=112 (local.get $numbers)))
    (local.set $end (i32.add (local.get $left) (i32.shl (local.get $frames) (i32.const 3))))
    (loop $next
      (local.set $x (v128.load64_lane 1 (local.get $right) (v128.load64_zero (local.get $left))))
      (local.set $above (f64x2.sub (local.get $x) (local.get $s2)))
      (local.set $band
        (f64x2.add (f64x2.mul (local.get $a1) (local.get $s1)) (f64x2.mul (local.get $a2) (local.get $above))))
      (local.set $low
        (f64x2.add
          (f64x2.add (local.get $s2) (f64x2.mul (local.get $a2) (local.get $s1)))
          (f64x2.mul (local.get $a3) (local.get $above))))
      (local.set $s1 (f64x2.sub (f64x2.add (local.get $band) (local.get $band)) (local.get $s1)))
      (local.set $s2 (f64x2.sub (f64x2.add (local.get $low) (local.get $low)) (local.get $s2)))
      (local.set $x
        (f64x2.add
          (f64x2.add (f64x2.mul (local.get $m0) (local.get $x)) (f64x2.mul (local.get $m1) (local.get $band)))
          (f64x2.mul (local.get $m2) (local.get $low))))
      (v128.store64_lane 0 (local.get $left) (local.get $x))
      (v128.store64_lane 1 (local.get $right) (local.get $x))
      (local.set $left (i32.add (local.get $left) (i32.const 8)))
      (local.set $right (i32.add (local.get $right) (i32.const 8)))
      (br_if $next (i32.lt_u (local.get $left) (local.get $end))))
    (v128.store offset=96 (local.get $numbers) (local.get $s1))
    (v128.store offset=112 (local.get $numbers) (local.get $s2)))
)
