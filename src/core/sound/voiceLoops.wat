;; The loops in which voices spend their time, two samples or two to four filters at once: what voiceLoops.ts does, to the same bits.
;; `npm run wasm` makes voiceLoopsWasm.ts of it. Sounds, buses and lanes are f64, sources of layers f32; all are given by where they lie
;; in the memory, in bytes, and so are gains: a number that is handed over by itself may take memory each time.
(module
  (import "sound" "memory" (memory 1))

  ;; Adds a sound to a bus. Gains: left, right, to the room.
  (func (export "mix")
    (param $frames i32) (param $sound i32) (param $left i32) (param $right i32) (param $send i32)
    (param $gains i32)
    (local $gainLeft f64) (local $gainRight f64) (local $toRoom f64)
    (local $end i32) (local $y v128) (local $one f64)
    (local $gainsLeft v128) (local $gainsRight v128) (local $toRooms v128)
    (local.set $gainLeft (f64.load (local.get $gains)))
    (local.set $gainRight (f64.load offset=8 (local.get $gains)))
    (local.set $toRoom (f64.load offset=16 (local.get $gains)))
    (local.set $gainsLeft (f64x2.splat (local.get $gainLeft)))
    (local.set $gainsRight (f64x2.splat (local.get $gainRight)))
    (local.set $toRooms (f64x2.splat (local.get $toRoom)))
    (local.set $end (i32.add (local.get $sound) (i32.shl (i32.and (local.get $frames) (i32.const -2)) (i32.const 3))))
    (block $none
      (br_if $none (i32.eq (local.get $sound) (local.get $end)))
      (loop $next
      (local.set $y (v128.load (local.get $sound)))
      (v128.store (local.get $left) (f64x2.add (v128.load (local.get $left)) (f64x2.mul (local.get $y) (local.get $gainsLeft))))
      (local.set $left (i32.add (local.get $left) (i32.const 16)))
      (v128.store (local.get $right) (f64x2.add (v128.load (local.get $right)) (f64x2.mul (local.get $y) (local.get $gainsRight))))
      (local.set $right (i32.add (local.get $right) (i32.const 16)))
      (v128.store (local.get $send) (f64x2.add (v128.load (local.get $send)) (f64x2.mul (local.get $y) (local.get $toRooms))))
      (local.set $send (i32.add (local.get $send) (i32.const 16)))
      (local.set $sound (i32.add (local.get $sound) (i32.const 16)))
      (br_if $next (i32.lt_u (local.get $sound) (local.get $end)))))
    (if (i32.and (local.get $frames) (i32.const 1))
      (then
        (local.set $one (f64.load (local.get $sound)))
        (f64.store (local.get $left) (f64.add (f64.load (local.get $left)) (f64.mul (local.get $one) (local.get $gainLeft))))
        (f64.store (local.get $right) (f64.add (f64.load (local.get $right)) (f64.mul (local.get $one) (local.get $gainRight))))
        (f64.store (local.get $send) (f64.add (f64.load (local.get $send)) (f64.mul (local.get $one) (local.get $toRoom)))))))

  ;; Adds a middle and its sides to a bus: left is their sum, right their difference.
  (func (export "mixSides")
    (param $frames i32) (param $middle i32) (param $sides i32) (param $left i32) (param $right i32) (param $send i32)
    (param $gains i32)
    (local $gainLeft f64) (local $gainRight f64) (local $toRoom f64)
    (local $end i32) (local $l v128) (local $r v128) (local $a f64) (local $b f64)
    (local $gainsLeft v128) (local $gainsRight v128) (local $toRooms v128)
    (local.set $gainLeft (f64.load (local.get $gains)))
    (local.set $gainRight (f64.load offset=8 (local.get $gains)))
    (local.set $toRoom (f64.load offset=16 (local.get $gains)))
    (local.set $gainsLeft (f64x2.splat (local.get $gainLeft)))
    (local.set $gainsRight (f64x2.splat (local.get $gainRight)))
    (local.set $toRooms (f64x2.splat (local.get $toRoom)))
    (local.set $end (i32.add (local.get $middle) (i32.shl (i32.and (local.get $frames) (i32.const -2)) (i32.const 3))))
    (block $none
      (br_if $none (i32.eq (local.get $middle) (local.get $end)))
      (loop $next
      (local.set $l (v128.load (local.get $middle)))
      (local.set $r (v128.load (local.get $sides)))
      (local.set $l (f64x2.mul (f64x2.add (local.get $l) (local.get $r)) (local.get $gainsLeft)))
      (local.set $r
        (f64x2.mul
          (f64x2.sub (v128.load (local.get $middle)) (v128.load (local.get $sides)))
          (local.get $gainsRight)))
      (v128.store (local.get $left) (f64x2.add (v128.load (local.get $left)) (local.get $l)))
      (local.set $left (i32.add (local.get $left) (i32.const 16)))
      (v128.store (local.get $right) (f64x2.add (v128.load (local.get $right)) (local.get $r)))
      (local.set $right (i32.add (local.get $right) (i32.const 16)))
      (v128.store (local.get $send) (f64x2.add (v128.load (local.get $send)) (f64x2.mul (f64x2.add (local.get $l) (local.get $r)) (local.get $toRooms))))
      (local.set $send (i32.add (local.get $send) (i32.const 16)))
      (local.set $sides (i32.add (local.get $sides) (i32.const 16)))
      (local.set $middle (i32.add (local.get $middle) (i32.const 16)))
      (br_if $next (i32.lt_u (local.get $middle) (local.get $end)))))
    (if (i32.and (local.get $frames) (i32.const 1))
      (then
        (local.set $a (f64.load (local.get $middle)))
        (local.set $b (f64.load (local.get $sides)))
        (local.set $gainLeft (f64.mul (f64.add (local.get $a) (local.get $b)) (local.get $gainLeft)))
        (local.set $gainRight (f64.mul (f64.sub (local.get $a) (local.get $b)) (local.get $gainRight)))
        (f64.store (local.get $left) (f64.add (f64.load (local.get $left)) (local.get $gainLeft)))
        (f64.store (local.get $right) (f64.add (f64.load (local.get $right)) (local.get $gainRight)))
        (f64.store (local.get $send) (f64.add (f64.load (local.get $send)) (f64.mul (f64.add (local.get $gainLeft) (local.get $gainRight)) (local.get $toRoom)))))))

  ;; Adds a sound to another one. Where frames are odd it takes one more: there must be room for it.
  (func (export "add") (param $frames i32) (param $from i32) (param $to i32) (param $gain i32)
    (local $end i32) (local $gains v128)
    (local.set $gains (v128.load64_splat (local.get $gain)))
    (local.set $end (i32.add (local.get $from) (i32.shl (local.get $frames) (i32.const 3))))
    (loop $next
      (v128.store (local.get $to)
        (f64x2.add (v128.load (local.get $to)) (f64x2.mul (v128.load (local.get $from)) (local.get $gains))))
      (local.set $to (i32.add (local.get $to) (i32.const 16)))
      (local.set $from (i32.add (local.get $from) (i32.const 16)))
      (br_if $next (i32.lt_u (local.get $from) (local.get $end)))))

  ;; Saturates in place, plainly: drive, and the gain after it. Where frames are odd it takes one more: there must be room for it.
  (func (export "saturate") (param $frames i32) (param $sound i32) (param $drive i32)
    (local $end i32) (local $x v128) (local $y v128) (local $drives v128) (local $makeUps v128)
    (local.set $drives (v128.load64_splat (local.get $drive)))
    (local.set $makeUps (v128.load64_splat offset=8 (local.get $drive)))
    (local.set $end (i32.add (local.get $sound) (i32.shl (local.get $frames) (i32.const 3))))
    (loop $next
      (local.set $x (f64x2.mul (v128.load (local.get $sound)) (local.get $drives)))
      (local.set $y
        (f64x2.mul (local.get $x)
          (f64x2.sub (v128.const f64x2 1 1)
            (f64x2.mul
              (f64x2.mul (v128.const f64x2 0.14814814814814814 0.14814814814814814) (local.get $x))
              (local.get $x)))))
      (local.set $y
        (v128.bitselect (v128.const f64x2 1 1) (local.get $y)
          (f64x2.gt (local.get $x) (v128.const f64x2 1.5 1.5))))
      (local.set $y
        (v128.bitselect (v128.const f64x2 -1 -1) (local.get $y)
          (f64x2.lt (local.get $x) (v128.const f64x2 -1.5 -1.5))))
      (v128.store (local.get $sound) (f64x2.mul (local.get $y) (local.get $makeUps)))
      (local.set $sound (i32.add (local.get $sound) (i32.const 16)))
      (br_if $next (i32.lt_u (local.get $sound) (local.get $end)))))

  ;; The sine of so many turns, as the function of that name has it.
  (func $sinTurns (param $turns v128) (result v128)
    (local $x v128) (local $y v128) (local $z v128)
    (local.set $x
      (f64x2.sub (local.get $turns) (f64x2.floor (f64x2.add (local.get $turns) (v128.const f64x2 0.5 0.5)))))
    (local.set $x
      (v128.bitselect
        (f64x2.sub (v128.const f64x2 0.5 0.5) (local.get $x))
        (v128.bitselect
          (f64x2.sub (v128.const f64x2 -0.5 -0.5) (local.get $x))
          (local.get $x)
          (f64x2.lt (local.get $x) (v128.const f64x2 -0.25 -0.25)))
        (f64x2.gt (local.get $x) (v128.const f64x2 0.25 0.25))))
    (local.set $y (f64x2.mul (local.get $x) (v128.const f64x2 6.283185307179586 6.283185307179586)))
    (local.set $z (f64x2.mul (local.get $y) (local.get $y)))
    (f64x2.mul (local.get $y)
      (f64x2.add (v128.const f64x2 1 1)
        (f64x2.mul (local.get $z)
          (f64x2.add (v128.const f64x2 -0.16666666666666666 -0.16666666666666666)
            (f64x2.mul (local.get $z)
              (f64x2.add (v128.const f64x2 0.008333333333333333 0.008333333333333333)
                (f64x2.mul (local.get $z)
                  (f64x2.add (v128.const f64x2 -0.0001984126984126984 -0.0001984126984126984)
                    (f64x2.mul (local.get $z)
                      (f64x2.sub (v128.const f64x2 2.7557319223985893e-6 2.7557319223985893e-6)
                        (f64x2.mul (local.get $z) (v128.const f64x2 2.505210838544172e-8 2.505210838544172e-8)))))))))))))

  ;; Four sine modes, added to a sound. Lanes, four of each: sine, cosine, those of the turn by a frame, the turn itself before the sweep, and
  ;; the decay. Then the attack and by how much it grows with a frame; the sweep, by how much it shrinks from one look at it to the
  ;; next, and the frames until the next look. While there is a sweep, each look sets the turns anew.
  (func (export "modes4") (param $frames i32) (param $lanes i32) (param $to i32)
    (local $end i32) (local $until i32) (local $next0 v128) (local $next1 v128)
    (local $sine0 v128) (local $sine1 v128) (local $cosine0 v128) (local $cosine1 v128)
    (local $turnSine0 v128) (local $turnSine1 v128) (local $turnCosine0 v128) (local $turnCosine1 v128)
    (local $step0 v128) (local $step1 v128) (local $ratio v128) (local $sweep f64)
    (local $attack v128) (local $attackStep v128) (local $gain v128) (local $out0 v128) (local $out1 v128)
    (local.set $sine0 (v128.load (local.get $lanes)))
    (local.set $sine1 (v128.load offset=16 (local.get $lanes)))
    (local.set $cosine0 (v128.load offset=32 (local.get $lanes)))
    (local.set $cosine1 (v128.load offset=48 (local.get $lanes)))
    (local.set $turnSine0 (v128.load offset=64 (local.get $lanes)))
    (local.set $turnSine1 (v128.load offset=80 (local.get $lanes)))
    (local.set $turnCosine0 (v128.load offset=96 (local.get $lanes)))
    (local.set $turnCosine1 (v128.load offset=112 (local.get $lanes)))
    (local.set $attack (v128.load64_splat offset=192 (local.get $lanes)))
    (local.set $attackStep (v128.load64_splat offset=200 (local.get $lanes)))
    (local.set $sweep (f64.load offset=208 (local.get $lanes)))
    (local.set $until (i32.trunc_sat_f64_u (f64.load offset=224 (local.get $lanes))))
    (loop $look
      (local.set $end (local.get $frames))
      (if (f64.gt (local.get $sweep) (f64.const 0))
        (then
          (if (i32.lt_u (local.get $until) (local.get $frames)) (then (local.set $end (local.get $until))))
          (local.set $until (i32.sub (local.get $until) (local.get $end)))))
      (local.set $frames (i32.sub (local.get $frames) (local.get $end)))
      (local.set $end (i32.add (local.get $to) (i32.shl (local.get $end) (i32.const 3))))
      (loop $next
        (local.set $gain (f64x2.pmin (local.get $attack) (v128.const f64x2 1 1)))
        (local.set $attack (f64x2.add (local.get $attack) (local.get $attackStep)))
        (local.set $out0 (f64x2.mul (local.get $sine0) (local.get $gain)))
        (local.set $out1 (f64x2.mul (local.get $sine1) (local.get $gain)))
        (f64.store (local.get $to)
          (f64.add
            (f64.add
              (f64.add
                (f64.add (f64.load (local.get $to)) (f64x2.extract_lane 0 (local.get $out0)))
                (f64x2.extract_lane 1 (local.get $out0)))
              (f64x2.extract_lane 0 (local.get $out1)))
            (f64x2.extract_lane 1 (local.get $out1))))
        (local.set $next0
          (f64x2.add
            (f64x2.mul (local.get $sine0) (local.get $turnCosine0))
            (f64x2.mul (local.get $cosine0) (local.get $turnSine0))))
        (local.set $cosine0
          (f64x2.sub
            (f64x2.mul (local.get $cosine0) (local.get $turnCosine0))
            (f64x2.mul (local.get $sine0) (local.get $turnSine0))))
        (local.set $sine0 (local.get $next0))
        (local.set $next1
          (f64x2.add
            (f64x2.mul (local.get $sine1) (local.get $turnCosine1))
            (f64x2.mul (local.get $cosine1) (local.get $turnSine1))))
        (local.set $cosine1
          (f64x2.sub
            (f64x2.mul (local.get $cosine1) (local.get $turnCosine1))
            (f64x2.mul (local.get $sine1) (local.get $turnSine1))))
        (local.set $sine1 (local.get $next1))
        (local.set $to (i32.add (local.get $to) (i32.const 8)))
        (br_if $next (i32.lt_u (local.get $to) (local.get $end))))
      (if (i32.and (f64.gt (local.get $sweep) (f64.const 0)) (i32.eqz (local.get $until)))
        (then
          (local.set $until (i32.const 16))
          (local.set $sweep (f64.mul (local.get $sweep) (f64.load offset=216 (local.get $lanes))))
          (if (f64.lt (local.get $sweep) (f64.const 1e-5)) (then (local.set $sweep (f64.const 0))))
          (local.set $ratio (f64x2.splat (f64.add (f64.const 1) (local.get $sweep))))
          (local.set $step0
            (f64x2.pmin
              (f64x2.mul (v128.load offset=128 (local.get $lanes)) (local.get $ratio))
              (v128.const f64x2 0.45 0.45)))
          (local.set $turnSine0
            (f64x2.mul (call $sinTurns (local.get $step0)) (v128.load offset=160 (local.get $lanes))))
          (local.set $turnCosine0
            (f64x2.mul
              (call $sinTurns (f64x2.add (local.get $step0) (v128.const f64x2 0.25 0.25)))
              (v128.load offset=160 (local.get $lanes))))
          (local.set $step1
            (f64x2.pmin
              (f64x2.mul (v128.load offset=144 (local.get $lanes)) (local.get $ratio))
              (v128.const f64x2 0.45 0.45)))
          (local.set $turnSine1
            (f64x2.mul (call $sinTurns (local.get $step1)) (v128.load offset=176 (local.get $lanes))))
          (local.set $turnCosine1
            (f64x2.mul
              (call $sinTurns (f64x2.add (local.get $step1) (v128.const f64x2 0.25 0.25)))
              (v128.load offset=176 (local.get $lanes))))))
      (br_if $look (i32.gt_u (local.get $frames) (i32.const 0))))
    (v128.store (local.get $lanes) (local.get $sine0))
    (v128.store offset=16 (local.get $lanes) (local.get $sine1))
    (v128.store offset=32 (local.get $lanes) (local.get $cosine0))
    (v128.store offset=48 (local.get $lanes) (local.get $cosine1))
    (v128.store offset=64 (local.get $lanes) (local.get $turnSine0))
    (v128.store offset=80 (local.get $lanes) (local.get $turnSine1))
    (v128.store offset=96 (local.get $lanes) (local.get $turnCosine0))
    (v128.store offset=112 (local.get $lanes) (local.get $turnCosine1))
    (f64.store offset=208 (local.get $lanes) (local.get $sweep))
    (f64.store offset=224 (local.get $lanes) (f64.convert_i32_u (local.get $until))))

  ;; White noise, by xorshift: four lanes of it, each into a stretch of f32 of its own, 512 bytes from the last. Its numbers, one of each
  ;; lane, go on; a lane of 0 stays silent.
  (func (export "noise4") (param $frames i32) (param $numbers i32) (param $to i32)
    (local $end i32) (local $number v128) (local $noise v128)
    (local.set $number (v128.load (local.get $numbers)))
    (local.set $end (i32.add (local.get $to) (i32.shl (local.get $frames) (i32.const 2))))
    (loop $next
      (local.set $number (v128.xor (local.get $number) (i32x4.shl (local.get $number) (i32.const 13))))
      (local.set $number (v128.xor (local.get $number) (i32x4.shr_u (local.get $number) (i32.const 17))))
      (local.set $number (v128.xor (local.get $number) (i32x4.shl (local.get $number) (i32.const 5))))
      (local.set $noise
        (f32x4.mul (f32x4.convert_i32x4_s (local.get $number)) (v128.const f32x4 0x1p-31 0x1p-31 0x1p-31 0x1p-31)))
      (v128.store32_lane 0 (local.get $to) (local.get $noise))
      (v128.store32_lane offset=512 1 (local.get $to) (local.get $noise))
      (v128.store32_lane offset=1024 2 (local.get $to) (local.get $noise))
      (v128.store32_lane offset=1536 3 (local.get $to) (local.get $noise))
      (local.set $to (i32.add (local.get $to) (i32.const 4)))
      (br_if $next (i32.lt_u (local.get $to) (local.get $end))))
    (v128.store (local.get $numbers) (local.get $number)))

  ;; Two layers: each reads its source through its filter and its envelope into its own sound. Lanes, four of each:
  ;; b0, b1, b2, a1, a2, envelope, decay, x1, x2, y1, y2. Their attacks are over.
  (func (export "layers2")
    (param $frames i32) (param $lanes i32) (param $from0 i32) (param $from1 i32)
    (param $to0 i32) (param $to1 i32)
    (local $at i32) (local $end i32)
    (local $b0_0 v128) (local $b1_0 v128) (local $b2_0 v128) (local $a1_0 v128) (local $a2_0 v128) (local $envelope0 v128) (local $decay0 v128)
    (local $x0 v128) (local $x1_0 v128) (local $x2_0 v128) (local $y0 v128) (local $y1_0 v128) (local $y2_0 v128) (local $out0 v128)
    (local.set $b0_0 (v128.load (local.get $lanes)))
    (local.set $b1_0 (v128.load offset=32 (local.get $lanes)))
    (local.set $b2_0 (v128.load offset=64 (local.get $lanes)))
    (local.set $a1_0 (v128.load offset=96 (local.get $lanes)))
    (local.set $a2_0 (v128.load offset=128 (local.get $lanes)))
    (local.set $envelope0 (v128.load offset=160 (local.get $lanes)))
    (local.set $decay0 (v128.load offset=192 (local.get $lanes)))
    (local.set $x1_0 (v128.load offset=224 (local.get $lanes)))
    (local.set $x2_0 (v128.load offset=256 (local.get $lanes)))
    (local.set $y1_0 (v128.load offset=288 (local.get $lanes)))
    (local.set $y2_0 (v128.load offset=320 (local.get $lanes)))
    (local.set $end (i32.shl (local.get $frames) (i32.const 2)))
    (loop $next
      (local.set $x0
        (f64x2.promote_low_f32x4
          (v128.load32_lane 1
            (i32.add (local.get $from1) (local.get $at))
            (v128.load32_zero (i32.add (local.get $from0) (local.get $at))))))
      (local.set $y0
        (f64x2.sub
          (f64x2.sub
            (f64x2.add
              (f64x2.add
                (f64x2.mul (local.get $b0_0) (local.get $x0))
                (f64x2.mul (local.get $b1_0) (local.get $x1_0)))
              (f64x2.mul (local.get $b2_0) (local.get $x2_0)))
            (f64x2.mul (local.get $a2_0) (local.get $y2_0)))
          (f64x2.mul (local.get $a1_0) (local.get $y1_0))))
      (local.set $x2_0 (local.get $x1_0))
      (local.set $x1_0 (local.get $x0))
      (local.set $y2_0 (local.get $y1_0))
      (local.set $y1_0 (local.get $y0))
      (local.set $out0 (f64x2.mul (local.get $y0) (local.get $envelope0)))
      (local.set $envelope0 (f64x2.mul (local.get $envelope0) (local.get $decay0)))
      (f64.store (local.get $to0)
        (f64.add (f64.load (local.get $to0)) (f64x2.extract_lane 0 (local.get $out0))))
      (local.set $to0 (i32.add (local.get $to0) (i32.const 8)))
      (f64.store (local.get $to1)
        (f64.add (f64.load (local.get $to1)) (f64x2.extract_lane 1 (local.get $out0))))
      (local.set $to1 (i32.add (local.get $to1) (i32.const 8)))
      (local.set $at (i32.add (local.get $at) (i32.const 4)))
      (br_if $next (i32.lt_u (local.get $at) (local.get $end))))
    (v128.store offset=160 (local.get $lanes) (local.get $envelope0))
    (v128.store offset=224 (local.get $lanes) (local.get $x1_0))
    (v128.store offset=256 (local.get $lanes) (local.get $x2_0))
    (v128.store offset=288 (local.get $lanes) (local.get $y1_0))
    (v128.store offset=320 (local.get $lanes) (local.get $y2_0)))

  ;; Two layers while the attack of one of them lasts at least: two more lanes, how far it is and by how much it grows with a frame.
  (func (export "attack2")
    (param $frames i32) (param $lanes i32) (param $from0 i32) (param $from1 i32)
    (param $to0 i32) (param $to1 i32)
    (local $at i32) (local $end i32)
    (local $b0_0 v128) (local $b1_0 v128) (local $b2_0 v128) (local $a1_0 v128) (local $a2_0 v128) (local $envelope0 v128) (local $decay0 v128)
    (local $x0 v128) (local $x1_0 v128) (local $x2_0 v128) (local $y0 v128) (local $y1_0 v128) (local $y2_0 v128) (local $out0 v128)
    (local $attack v128) (local $attackStep v128) (local $isOver v128)
    (local $before f64) (local $sum f64)
    (local.set $b0_0 (v128.load (local.get $lanes)))
    (local.set $b1_0 (v128.load offset=32 (local.get $lanes)))
    (local.set $b2_0 (v128.load offset=64 (local.get $lanes)))
    (local.set $a1_0 (v128.load offset=96 (local.get $lanes)))
    (local.set $a2_0 (v128.load offset=128 (local.get $lanes)))
    (local.set $envelope0 (v128.load offset=160 (local.get $lanes)))
    (local.set $decay0 (v128.load offset=192 (local.get $lanes)))
    (local.set $x1_0 (v128.load offset=224 (local.get $lanes)))
    (local.set $x2_0 (v128.load offset=256 (local.get $lanes)))
    (local.set $y1_0 (v128.load offset=288 (local.get $lanes)))
    (local.set $y2_0 (v128.load offset=320 (local.get $lanes)))
    (local.set $attack (v128.load offset=352 (local.get $lanes)))
    (local.set $attackStep (v128.load offset=384 (local.get $lanes)))
    (local.set $end (i32.shl (local.get $frames) (i32.const 2)))
    (loop $next
      (local.set $x0
        (f64x2.promote_low_f32x4
          (v128.load32_lane 1
            (i32.add (local.get $from1) (local.get $at))
            (v128.load32_zero (i32.add (local.get $from0) (local.get $at))))))
      (local.set $y0
        (f64x2.sub
          (f64x2.sub
            (f64x2.add
              (f64x2.add
                (f64x2.mul (local.get $b0_0) (local.get $x0))
                (f64x2.mul (local.get $b1_0) (local.get $x1_0)))
              (f64x2.mul (local.get $b2_0) (local.get $x2_0)))
            (f64x2.mul (local.get $a2_0) (local.get $y2_0)))
          (f64x2.mul (local.get $a1_0) (local.get $y1_0))))
      (local.set $x2_0 (local.get $x1_0))
      (local.set $x1_0 (local.get $x0))
      (local.set $y2_0 (local.get $y1_0))
      (local.set $y1_0 (local.get $y0))
      (local.set $out0 (f64x2.mul (local.get $y0) (local.get $envelope0)))
      (local.set $envelope0 (f64x2.mul (local.get $envelope0) (local.get $decay0)))
      (local.set $isOver (f64x2.ge (local.get $attack) (v128.const f64x2 1 1)))
      (local.set $attack
        (f64x2.pmin (f64x2.add (local.get $attack) (local.get $attackStep)) (v128.const f64x2 1 1)))
      (local.set $before (f64.load (local.get $to0)))
      (local.set $sum (f64.add (local.get $before) (f64x2.extract_lane 0 (local.get $out0))))
      (f64.store (local.get $to0)
        (select
          (local.get $sum)
          (f64.add (local.get $before)
            (f64.mul (f64.sub (local.get $sum) (local.get $before)) (f64x2.extract_lane 0 (local.get $attack))))
          (i32x4.extract_lane 0 (local.get $isOver))))
      (local.set $to0 (i32.add (local.get $to0) (i32.const 8)))
      (local.set $before (f64.load (local.get $to1)))
      (local.set $sum (f64.add (local.get $before) (f64x2.extract_lane 1 (local.get $out0))))
      (f64.store (local.get $to1)
        (select
          (local.get $sum)
          (f64.add (local.get $before)
            (f64.mul (f64.sub (local.get $sum) (local.get $before)) (f64x2.extract_lane 1 (local.get $attack))))
          (i32x4.extract_lane 2 (local.get $isOver))))
      (local.set $to1 (i32.add (local.get $to1) (i32.const 8)))
      (local.set $at (i32.add (local.get $at) (i32.const 4)))
      (br_if $next (i32.lt_u (local.get $at) (local.get $end))))
    (v128.store offset=160 (local.get $lanes) (local.get $envelope0))
    (v128.store offset=224 (local.get $lanes) (local.get $x1_0))
    (v128.store offset=256 (local.get $lanes) (local.get $x2_0))
    (v128.store offset=288 (local.get $lanes) (local.get $y1_0))
    (v128.store offset=320 (local.get $lanes) (local.get $y2_0))
    (v128.store offset=352 (local.get $lanes) (local.get $attack)))

  ;; The same for four layers.
  (func (export "layers4")
    (param $frames i32) (param $lanes i32) (param $from0 i32) (param $from1 i32) (param $from2 i32) (param $from3 i32)
    (param $to0 i32) (param $to1 i32) (param $to2 i32) (param $to3 i32)
    (local $at i32) (local $end i32)
    (local $b0_0 v128) (local $b1_0 v128) (local $b2_0 v128) (local $a1_0 v128) (local $a2_0 v128) (local $envelope0 v128) (local $decay0 v128)
    (local $x0 v128) (local $x1_0 v128) (local $x2_0 v128) (local $y0 v128) (local $y1_0 v128) (local $y2_0 v128) (local $out0 v128)
    (local $b0_1 v128) (local $b1_1 v128) (local $b2_1 v128) (local $a1_1 v128) (local $a2_1 v128) (local $envelope1 v128) (local $decay1 v128)
    (local $x1 v128) (local $x1_1 v128) (local $x2_1 v128) (local $y1 v128) (local $y1_1 v128) (local $y2_1 v128) (local $out1 v128)
    (local.set $b0_0 (v128.load (local.get $lanes)))
    (local.set $b0_1 (v128.load offset=16 (local.get $lanes)))
    (local.set $b1_0 (v128.load offset=32 (local.get $lanes)))
    (local.set $b1_1 (v128.load offset=48 (local.get $lanes)))
    (local.set $b2_0 (v128.load offset=64 (local.get $lanes)))
    (local.set $b2_1 (v128.load offset=80 (local.get $lanes)))
    (local.set $a1_0 (v128.load offset=96 (local.get $lanes)))
    (local.set $a1_1 (v128.load offset=112 (local.get $lanes)))
    (local.set $a2_0 (v128.load offset=128 (local.get $lanes)))
    (local.set $a2_1 (v128.load offset=144 (local.get $lanes)))
    (local.set $envelope0 (v128.load offset=160 (local.get $lanes)))
    (local.set $envelope1 (v128.load offset=176 (local.get $lanes)))
    (local.set $decay0 (v128.load offset=192 (local.get $lanes)))
    (local.set $decay1 (v128.load offset=208 (local.get $lanes)))
    (local.set $x1_0 (v128.load offset=224 (local.get $lanes)))
    (local.set $x1_1 (v128.load offset=240 (local.get $lanes)))
    (local.set $x2_0 (v128.load offset=256 (local.get $lanes)))
    (local.set $x2_1 (v128.load offset=272 (local.get $lanes)))
    (local.set $y1_0 (v128.load offset=288 (local.get $lanes)))
    (local.set $y1_1 (v128.load offset=304 (local.get $lanes)))
    (local.set $y2_0 (v128.load offset=320 (local.get $lanes)))
    (local.set $y2_1 (v128.load offset=336 (local.get $lanes)))
    (local.set $end (i32.shl (local.get $frames) (i32.const 2)))
    (loop $next
      (local.set $x0
        (f64x2.promote_low_f32x4
          (v128.load32_lane 1
            (i32.add (local.get $from1) (local.get $at))
            (v128.load32_zero (i32.add (local.get $from0) (local.get $at))))))
      (local.set $x1
        (f64x2.promote_low_f32x4
          (v128.load32_lane 1
            (i32.add (local.get $from3) (local.get $at))
            (v128.load32_zero (i32.add (local.get $from2) (local.get $at))))))
      (local.set $y0
        (f64x2.sub
          (f64x2.sub
            (f64x2.add
              (f64x2.add
                (f64x2.mul (local.get $b0_0) (local.get $x0))
                (f64x2.mul (local.get $b1_0) (local.get $x1_0)))
              (f64x2.mul (local.get $b2_0) (local.get $x2_0)))
            (f64x2.mul (local.get $a2_0) (local.get $y2_0)))
          (f64x2.mul (local.get $a1_0) (local.get $y1_0))))
      (local.set $x2_0 (local.get $x1_0))
      (local.set $x1_0 (local.get $x0))
      (local.set $y2_0 (local.get $y1_0))
      (local.set $y1_0 (local.get $y0))
      (local.set $out0 (f64x2.mul (local.get $y0) (local.get $envelope0)))
      (local.set $envelope0 (f64x2.mul (local.get $envelope0) (local.get $decay0)))
      (local.set $y1
        (f64x2.sub
          (f64x2.sub
            (f64x2.add
              (f64x2.add
                (f64x2.mul (local.get $b0_1) (local.get $x1))
                (f64x2.mul (local.get $b1_1) (local.get $x1_1)))
              (f64x2.mul (local.get $b2_1) (local.get $x2_1)))
            (f64x2.mul (local.get $a2_1) (local.get $y2_1)))
          (f64x2.mul (local.get $a1_1) (local.get $y1_1))))
      (local.set $x2_1 (local.get $x1_1))
      (local.set $x1_1 (local.get $x1))
      (local.set $y2_1 (local.get $y1_1))
      (local.set $y1_1 (local.get $y1))
      (local.set $out1 (f64x2.mul (local.get $y1) (local.get $envelope1)))
      (local.set $envelope1 (f64x2.mul (local.get $envelope1) (local.get $decay1)))
      (f64.store (local.get $to0)
        (f64.add (f64.load (local.get $to0)) (f64x2.extract_lane 0 (local.get $out0))))
      (local.set $to0 (i32.add (local.get $to0) (i32.const 8)))
      (f64.store (local.get $to1)
        (f64.add (f64.load (local.get $to1)) (f64x2.extract_lane 1 (local.get $out0))))
      (local.set $to1 (i32.add (local.get $to1) (i32.const 8)))
      (f64.store (local.get $to2)
        (f64.add (f64.load (local.get $to2)) (f64x2.extract_lane 0 (local.get $out1))))
      (local.set $to2 (i32.add (local.get $to2) (i32.const 8)))
      (f64.store (local.get $to3)
        (f64.add (f64.load (local.get $to3)) (f64x2.extract_lane 1 (local.get $out1))))
      (local.set $to3 (i32.add (local.get $to3) (i32.const 8)))
      (local.set $at (i32.add (local.get $at) (i32.const 4)))
      (br_if $next (i32.lt_u (local.get $at) (local.get $end))))
    (v128.store offset=160 (local.get $lanes) (local.get $envelope0))
    (v128.store offset=176 (local.get $lanes) (local.get $envelope1))
    (v128.store offset=224 (local.get $lanes) (local.get $x1_0))
    (v128.store offset=240 (local.get $lanes) (local.get $x1_1))
    (v128.store offset=256 (local.get $lanes) (local.get $x2_0))
    (v128.store offset=272 (local.get $lanes) (local.get $x2_1))
    (v128.store offset=288 (local.get $lanes) (local.get $y1_0))
    (v128.store offset=304 (local.get $lanes) (local.get $y1_1))
    (v128.store offset=320 (local.get $lanes) (local.get $y2_0))
    (v128.store offset=336 (local.get $lanes) (local.get $y2_1))))
