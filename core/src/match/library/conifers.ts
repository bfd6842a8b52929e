/** Conifers and the maidenhair tree. Columns and codes: see `read-row.ts`. */
export const conifers = `
Cupressus sempervirens|Italian cypress|Cupressaceae|12-20|2-4|mCe|lnhm|5.5-8.5|f|-12|hhllhl|-|lm|3|9,10|-|s|efn|a|canker, aphids|Eastern Mediterranean|Narrow; heavy pollen, burns easily.
Ginkgo biloba|maidenhair tree|Ginkgoaceae|14-22|7-12|sOd|lbhm|5-8|f|-30|hhllll|-|ll|4|10|10,11|d|eef|s|none known|China|Plant males: the fruit of females stinks and is slippery.
Juniperus brevifolia|Azorean juniper|Cupressaceae|4-8|3-6|sRe|mnmm|4-6.5|f|-5|lhllhl|-|lm|3|10|-|d|efn|a|dwarf mistletoe|Macaronesia: Azores|Native of the high ground; slow and firm.
Metasequoia glyptostroboides|dawn redwood|Cupressaceae|18-28|6-9|fKd|hyml|4.5-7.5|f|-28|mhmmll|-|ll|3|10|10,11|s|eef|s|few|China|Wet ground and wide lawns; fluted base lifts paving.
Pinus pinea|stone pine|Pinaceae|12-18|10-15|mSe|lnhm|5-8|f|-12|hhhmml|-|lm|5|10|-|s|efn|a|processionary moth|Mediterranean|Broad shade; roots lift paving, cones are heavy.
Taxodium distichum|bald cypress|Cupressaceae|18-26|7-10|mKd|hyhm|4.5-7|f|-28|hhmmll|-|lm|3|10|10,11|s|eef|s|yellows on lime|South-eastern United States|Stands in water and bears drought; knees by the water.
Taxus baccata|yew|Taxaceae|8-14|7-11|sRe|mnhl|5-8|s|-25|mhllhh|-|lh|3|9,10|-|d|efn|a|root rot in wet soil|Europe, North Africa|All but the red flesh is deadly poisonous: not by schools or pasture.
`;
