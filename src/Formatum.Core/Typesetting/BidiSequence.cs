namespace Formatum.Core.Typesetting;

/// <summary>An isolating run sequence: characters of one level that belong together though isolates stand between them (UAX #9, BD13).</summary>
internal sealed class BidiSequence
{
    private readonly Bidi _text;
    private readonly List<int> _places;
    private readonly BidiClass _before, _behind;
    private readonly int _level;

    private BidiSequence(Bidi text, List<int> places)
    {
        (_text, _places, _level) = (text, places, text.LevelAt(places[0]));
        int before = places[0] - 1, last = places[^1], behind = last + 1;
        while (before >= 0 && text.IsRemoved(before)) before--;
        while (behind < text.Length && text.IsRemoved(behind)) behind++;
        // X10: what stands beside decides; behind an isolate that does not end, the paragraph does.
        bool open = Bidi.BeginsIsolate(text.OriginalAt(last)) && text.MatchOf(last) >= text.Length;
        _before = Of(before < 0 ? text.ParagraphLevel : text.LevelAt(before));
        _behind = Of(open || behind >= text.Length ? text.ParagraphLevel : text.LevelAt(behind));
    }

    private BidiClass Of(int level) => Math.Max(level, _level) % 2 == 0 ? BidiClass.L : BidiClass.R;

    public static IEnumerable<BidiSequence> Of(Bidi text)
    {
        var runs = new List<List<int>>();
        int[] runOf = new int[text.Length];
        int last = -1;
        for (int i = 0; i < text.Length; i++)
        {
            if (text.IsRemoved(i)) continue;
            if (last < 0 || text.LevelAt(last) != text.LevelAt(i)) runs.Add([]);
            runs[^1].Add(i);
            runOf[i] = runs.Count - 1;
            last = i;
        }
        var matched = Enumerable.Range(0, text.Length).Where(i => text.MatchOf(i) >= 0 && text.MatchOf(i) < text.Length).Select(text.MatchOf).ToHashSet();
        foreach (var run in runs)
        {
            // One that begins where an isolate ends goes on with the run in which that began.
            if (text.OriginalAt(run[0]) == BidiClass.PDI && matched.Contains(run[0])) continue;
            var places = new List<int>(run);
            while (text.MatchOf(places[^1]) is >= 0 and var end && end < text.Length) places.AddRange(runs[runOf[end]]);
            yield return new(text, places);
        }
    }

    private ref BidiClass this[int i] => ref _text.TypeAt(_places[i]);

    public void Resolve()
    {
        Weak();
        Brackets();
        Neutral();
        // I1 and I2.
        for (int i = 0; i < _places.Count; i++)
            _text.LevelAt(_places[i]) += (_level % 2, this[i]) switch
            {
                (0, BidiClass.R) => 1,
                (0, BidiClass.AN or BidiClass.EN) => 2,
                (1, BidiClass.L or BidiClass.AN or BidiClass.EN) => 1,
                _ => 0,
            };
    }

    /// <summary>W1 to W7.</summary>
    private void Weak()
    {
        int count = _places.Count;
        for (int i = 0; i < count; i++)
        {
            if (this[i] != BidiClass.NSM) continue;
            this[i] = i == 0 ? _before : Bidi.BeginsIsolate(this[i - 1]) || this[i - 1] == BidiClass.PDI ? BidiClass.ON : this[i - 1];
        }
        var strong = _before;
        for (int i = 0; i < count; i++)
        {
            if (this[i] is BidiClass.L or BidiClass.R or BidiClass.AL) strong = this[i];
            else if (this[i] == BidiClass.EN && strong == BidiClass.AL) this[i] = BidiClass.AN;
        }
        for (int i = 0; i < count; i++) if (this[i] == BidiClass.AL) this[i] = BidiClass.R;
        for (int i = 1; i < count - 1; i++)
        {
            var (one, other) = (this[i - 1], this[i + 1]);
            if (one != other) continue;
            if ((this[i] is BidiClass.ES or BidiClass.CS && one == BidiClass.EN) || (this[i] == BidiClass.CS && one == BidiClass.AN)) this[i] = one;
        }
        for (int i = 0; i < count; i++)
        {
            if (this[i] != BidiClass.ET) continue;
            int end = i;
            while (end < count && this[end] == BidiClass.ET) end++;
            bool beside = (i > 0 && this[i - 1] == BidiClass.EN) || (end < count && this[end] == BidiClass.EN);
            for (; i < end; i++) this[i] = beside ? BidiClass.EN : BidiClass.ON;
            i--;
        }
        for (int i = 0; i < count; i++) if (this[i] is BidiClass.ES or BidiClass.CS or BidiClass.ET) this[i] = BidiClass.ON;
        strong = _before;
        for (int i = 0; i < count; i++)
        {
            if (this[i] is BidiClass.L or BidiClass.R) strong = this[i];
            else if (this[i] == BidiClass.EN && strong == BidiClass.L) this[i] = BidiClass.L;
        }
    }

    /// <summary>BD16: so many brackets may be open at once.</summary>
    private const int MostOpen = 63;

    private List<(int Open, int Close)> Pairs()
    {
        var pairs = new List<(int, int)>();
        var open = new List<(int Closing, int At)>();
        for (int i = 0; i < _places.Count; i++)
        {
            if (this[i] != BidiClass.ON) continue;
            int point = _text.PointAt(_places[i]);
            if (BidiClasses.ClosingOf(point) is { } closing)
            {
                if (open.Count == MostOpen) return [];
                open.Add((closing, i));
            }
            else if (BidiClasses.Closes(point) && open.FindLastIndex(o => o.Closing == BidiClasses.Canonical(point)) is >= 0 and var at)
            {
                pairs.Add((open[at].At, i));
                open.RemoveRange(at, open.Count - at);
            }
        }
        pairs.Sort();
        return pairs;
    }

    /// <summary>L or R, as numbers count for neutrals; null for what is neither.</summary>
    private static BidiClass? Strong(BidiClass type) => type switch
    {
        BidiClass.L => BidiClass.L,
        BidiClass.R or BidiClass.EN or BidiClass.AN => BidiClass.R,
        _ => null,
    };

    private BidiClass Embedding => _level % 2 == 0 ? BidiClass.L : BidiClass.R;

    /// <summary>N0.</summary>
    private void Brackets()
    {
        foreach (var (open, close) in Pairs())
        {
            bool against = false, along = false;
            for (int i = open + 1; i < close; i++)
            {
                if (Strong(this[i]) is not { } strong) continue;
                along |= strong == Embedding;
                against |= strong != Embedding;
            }
            if (along) Set(open, close, Embedding);
            else if (against)
            {
                var before = _before;
                for (int i = open - 1; i >= 0; i--)
                {
                    if (Strong(this[i]) is not { } strong) continue;
                    before = strong;
                    break;
                }
                Set(open, close, before != Embedding ? before : Embedding);
            }
        }
    }

    private void Set(int open, int close, BidiClass type)
    {
        foreach (int at in new[] { open, close })
        {
            this[at] = type;
            // Marks on a bracket go with it.
            for (int i = at + 1; i < _places.Count && _text.OriginalAt(_places[i]) == BidiClass.NSM; i++) this[i] = type;
        }
    }

    private static bool IsNeutral(BidiClass type) =>
        type is BidiClass.B or BidiClass.S or BidiClass.WS or BidiClass.ON or BidiClass.PDI || Bidi.BeginsIsolate(type);

    /// <summary>N1 and N2.</summary>
    private void Neutral()
    {
        for (int i = 0; i < _places.Count; i++)
        {
            if (!IsNeutral(this[i])) continue;
            int end = i;
            while (end < _places.Count && IsNeutral(this[end])) end++;
            var before = i == 0 ? _before : Strong(this[i - 1]);
            var behind = end == _places.Count ? _behind : Strong(this[end]);
            var type = before == behind && before is { } both ? both : Embedding;
            for (; i < end; i++) this[i] = type;
            i--;
        }
    }
}
