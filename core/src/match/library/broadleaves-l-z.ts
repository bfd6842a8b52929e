/** Broadleaved species, Lophostemon to Ziziphus. Columns and codes: see `read-row.ts`. */
export const broadleavesLToZ = `
Lophostemon confertus|brush box|Myrtaceae|12-18|8-12|mOe|mbhm|4.5-7|f|-4|hhmmll|-|mm|6,7|9|-|s|eef|s|yellows on lime|Eastern Australia|Dense evergreen street tree for mild coasts.
Magnolia grandiflora|southern magnolia|Magnoliaceae|12-18|8-12|sKe|mbmm|5-7|p|-16|hmmhll|-|mm|6,7|10|-|s|eef|a|scale|South-eastern United States|Leathery leaves fall all year and rot slowly.
Magnolia kobus|kobus magnolia|Magnoliaceae|8-12|7-10|mRd|mbll|5-7.5|f|-30|lmllll|-|ml|3,4|9|10|s|ehn|s|scale|Japan, Korea|Fleshy roots: plant small, in spring.
Malus floribunda|Japanese crab apple|Rosaceae|4-7|5-7|mSd|mbml|5.5-7.5|f|-30|mmlmll|-|hh|4,5|9,10|10|c|eee|a|scab, fireblight|Garden hybrid, Japan|Small fruit liked by birds.
Melaleuca viminalis|weeping bottlebrush|Myrtaceae|4-7|3-5|mWe|mymm|5-7.5|f|-5|hmllll|-|hh|4,5,6|9|-|s|eef|s|few|Eastern Australia|Small tree for narrow strips in mild climates.
Melia azedarach|bead tree|Meliaceae|8-12|7-10|fRd|lbhm|5-8.5|f|-12|hlmhlh|-|mm|5|10,11|10|s|eef|a|few|South Asia to Australia|Berries poisonous and slippery; brittle wood.
Metrosideros excelsa|pohutukawa|Myrtaceae|8-14|9-14|mSe|lnhh|5-7.5|f|-3|mhhmll|-|hh|6,7|9|-|s|efn|s|myrtle rust|New Zealand|Stands sea wind and salt; hanging roots and strong surface roots.
Morella faya|firetree|Myricaceae|5-9|4-7|mRe|lbhm|4.5-7.5|f|-4|mhmmll|-|lh|3,4|7,8|-|d|efn|a|few|Macaronesia|Native; binds nitrogen and feeds birds.
Morus alba|white mulberry|Moraceae|8-13|8-12|fRd|lbhm|5.5-8|f|-28|hmmhhl|-|lh|4,5|6,7|10|d|eee|s|scale|China|Fruit stains; fruitless male kinds shed much pollen.
Nyssa sylvatica|black tupelo|Nyssaceae|10-16|6-10|sKd|myml|4.5-6.5|p|-30|mhmmll|-|mh|5|9,10|10|d|ehn|s|few|Eastern North America|Taproot: move it small; brilliant autumn.
Olea europaea|olive|Oleaceae|6-10|6-9|sRe|lnhm|6-8.5|f|-10|hhmhhl|-|lh|5|10,11|-|s|eef|s|olive fly, scale, xylella|Mediterranean|Fruitless kinds for pavements; heavy pollen.
Ostrya carpinifolia|hop hornbeam|Betulaceae|10-15|8-11|mOd|lnhl|6-8.5|p|-22|hmlmml|-|lm|4|8,9|10|s|ehh|a|few|Southern Europe to Turkey|For dry stony lime.
Parrotia persica|Persian ironwood|Hamamelidaceae|7-11|6-10|sSd|mbml|5-7.5|p|-25|mhllll|-|ml|2,3|9|10,11|s|eeh|a|few|Northern Iran, Caucasus|Firm wood, long autumn colour, few troubles.
Persea indica|viñátigo|Lauraceae|10-16|8-12|mRe|mbll|4.5-7|s|-3|lmmmlm|-|mh|8,9|12,1|-|s|efn|a|few|Macaronesia|Large laurel of moist woods; bark and leaves poisonous to rodents.
Phillyrea latifolia|broad-leaved phillyrea|Oleaceae|5-8|4-6|sRe|lnhm|6-8.5|p|-14|hhllml|-|lm|4,5|9,10|-|d|efn|a|whitefly|Mediterranean|Olive-like, long lived, bears pruning and sea air.
Picconia azorica|white wood|Oleaceae|5-9|4-6|sOe|mnml|4.5-7|p|-2|mhllll|-|mh|5,6|10|-|s|efn|a|few|Macaronesia: Azores|Native small evergreen of low coastal woods; firm wood.
Pistacia chinensis|Chinese pistache|Anacardiaceae|8-13|8-11|mRd|lnhm|5.5-8.5|f|-18|hhlmll|-|lm|4|9,10|10,11|d|eef|s|few|China|Crooked while young, firm and clean later; males for pavements.
Pistacia lentiscus|mastic tree|Anacardiaceae|3-5|3-5|sRe|lnhh|6-8.5|f|-10|hhllml|-|lh|4|9,10|-|d|efn|a|few|Mediterranean|Small tree for salt wind and drought.
Platanus × hispanica|London plane|Platanaceae|20-30|15-22|fRd|mbhm|5.5-8.5|f|-25|hhhmhl|-|lm|5|10,11|10|s|eee|a|lace bug, anthracnose, canker stain|Garden hybrid|Large and tough; hairs and pollen irritate; strong roots.
Populus tremula|aspen|Salicaceae|12-20|7-11|fOd|myml|5-8|f|-40|lmhmml|-|lh|3|5|10|d|eee|s|canker|Europe to Siberia|Suckers widely: not by paving.
Prunus avium|wild cherry|Rosaceae|12-18|8-12|fOd|mnml|5.5-8|f|-28|mmmmlm|-|hh|4|6,7|10|c|eee|a|gummosis, aphids|Europe|Surface roots; prune in summer.
Prunus cerasifera|cherry plum|Rosaceae|5-8|5-7|fRd|lbml|5.5-8|f|-28|mmlmlm|-|hh|3|7,8|-|c|eee|a|silver leaf, aphids|South-eastern Europe to Central Asia|Early flower; fruit on paths.
Prunus lusitanica|Portugal laurel|Rosaceae|5-9|5-8|mRe|lbhm|5-8|s|-15|mhlmlh|-|hh|5,6|9,10|-|s|efn|a|silver leaf|South-western Europe, Macaronesia|Dense evergreen; leaves and seeds poisonous.
Prunus serrulata|Japanese flowering cherry|Rosaceae|6-9|6-9|mVd|mnll|5.5-7.5|f|-28|mmmlll|-|ml|4|-|10,11|s|eee|a|canker, short lived|East Asia|Double kinds give nothing to bees; surface roots.
Punica granatum|pomegranate|Lythraceae|4-6|3-5|mRd|lbhm|5.5-8.5|f|-12|hmlmll|t|mm|6,7|9,10|10|s|eef|s|aphids|Iran to Himalaya|Small and tough; thorny twigs, fruit splits.
Pyrus salicifolia|willow-leaved pear|Rosaceae|5-8|4-6|mWd|lbhm|5.5-8|f|-25|mhllll|-|hm|4|9|-|c|eef|a|fireblight, scab|Turkey to Iran|Silver and weeping; hard small fruit.
Quercus bicolor|swamp white oak|Fagaceae|15-20|13-18|mRd|myhm|4.5-7|f|-34|mhmmml|-|lh|5|9,10|10|s|efh|s|yellows on lime|North-eastern North America|Bears compacted and wet ground better than most oaks.
Quercus cerris|Turkey oak|Fagaceae|20-28|14-20|fRd|lbhm|5-8.5|f|-25|hhmmml|-|lh|5|10|11|s|ehn|a|knopper gall host|Southern Europe, Turkey|Fast for an oak, bears drought and lime.
Quercus coccifera|kermes oak|Fagaceae|3-6|3-6|sIe|lnhm|6-8.5|f|-14|hhllml|t|lh|5|9,10|-|s|ehn|a|few|Mediterranean|Spiny leaves; for dry banks.
Quercus faginea|Portuguese oak|Fagaceae|12-18|10-15|sRs|lbhl|5.5-8.5|f|-18|hhmmml|-|lh|4,5|10|11|s|ehn|a|galls|Iberia, North Africa|Keeps its leaves into winter.
Quercus frainetto|Hungarian oak|Fagaceae|18-25|14-18|mRd|lbhl|5-7.5|f|-25|hhmmml|-|lh|5|10|10|s|ehn|a|powdery mildew|Balkans, southern Italy|Large leaves, even crown.
Quercus ilex|holm oak|Fagaceae|14-20|12-18|sRe|lnhh|5-8.5|p|-15|hhmmhl|-|lh|5|10,11|-|s|ehn|a|leaf mites, powdery mildew|Mediterranean|Dense evergreen shade, bears salt wind.
Quercus palustris|pin oak|Fagaceae|16-22|10-14|fKd|myml|4.5-6.5|f|-30|mhmmml|-|lh|5|10|10,11|s|eef|s|yellows on lime|North-eastern United States|Easy to move for an oak; acid soil only.
Quercus phellos|willow oak|Fagaceae|15-22|11-16|fRd|myml|4.5-6.5|f|-22|hhmmml|-|lh|4,5|10|11|s|eef|s|yellows on lime|South-eastern United States|Narrow leaves blow away by themselves.
Quercus robur|English oak|Fagaceae|18-28|15-22|sSd|mbml|4.5-8|f|-35|mhmmml|-|lh|5|10|11|s|efh|a|powdery mildew, processionary moth|Europe|Home to more life than any other; slow and large.
Quercus rubra|red oak|Fagaceae|18-25|14-18|fRd|mbml|4.5-6.8|f|-34|mhmmml|-|lm|5|10|10|s|eef|s|yellows on lime|Eastern North America|Seeds itself about in parts of Europe.
Quercus suber|cork oak|Fagaceae|12-18|12-16|sSe|lnhm|4.5-7|f|-12|hhmmml|-|lh|5|10,11|-|s|ehn|a|root rot in wet soil|Western Mediterranean|Corky bark; asks acid, well drained ground.
Quillaja saponaria|soapbark|Quillajaceae|8-12|5-7|mOe|lnhl|5.5-8|f|-8|hmlmll|-|hl|5,6|10|-|s|eef|s|few|Chile|Slender evergreen for dry mild climates.
Salix alba|white willow|Salicaceae|15-22|11-16|fWd|hyml|5.5-8|f|-35|lmhmml|-|hh|4|6|-|d|eee|s|watermark disease|Europe to Central Asia|Roots seek drains; brittle. River banks only.
Schinus molle|pepper tree|Anacardiaceae|7-12|8-12|fWe|lbhh|5.5-8.5|f|-6|hmhhmm|-|mm|5,6|10,11|-|d|efn|s|psyllid|Peru to Argentina|Strong roots; seeds itself about in dry warm regions.
Sorbus aucuparia|rowan|Rosaceae|7-11|5-7|mOd|mbll|4-7|p|-38|lmllll|-|hh|5|8,9|10|s|eee|a|fireblight|Europe|For cool summers; berries for birds.
Aria edulis|whitebeam|Rosaceae|8-13|6-9|mOd|lnml|5.5-8.5|f|-28|mhllll|-|hh|5|9,10|10|s|eef|a|fireblight|Europe|Silver leaves; bears wind and lime.
Torminalis glaberrima|wild service tree|Rosaceae|10-16|8-12|sOd|mbml|5.5-8|p|-25|mhllll|-|hm|5,6|9,10|10|s|eef|a|few|Europe, North Africa|Rare native of warm woods, fine autumn colour.
Styphnolobium japonicum|pagoda tree|Fabaceae|13-18|12-16|mRd|lbhm|5.5-8.5|f|-26|hmmmlm|-|hl|7,8|10,11|-|s|eef|s|canker|China|Late flower for bees; pods poisonous, stain paving.
Syringa reticulata|Japanese tree lilac|Oleaceae|6-9|5-7|mRd|mbmm|6-8|f|-38|lmllml|-|hl|6|9|-|s|eee|s|few|Japan, northern China|Small street tree for cold climates.
Tamarix gallica|French tamarisk|Tamaricaceae|4-7|4-6|fIs|lbhh|6-9|f|-18|hhmlll|-|ml|5,6|8|-|s|efe|a|few|Western Mediterranean coasts|First row by the sea; irregular crown.
Tilia cordata|small-leaved lime|Malvaceae|16-24|10-14|mKd|mbml|5.5-8|p|-35|lhmmll|-|hm|6,7|9,10|10|s|eee|a|honeydew of aphids|Europe|Bears pruning and moving; drops honeydew on cars.
Tilia tomentosa|silver lime|Malvaceae|16-24|12-16|mRd|lbhm|5.5-8.5|f|-28|hhmmll|-|hm|7|10|10|s|eee|a|few aphids|South-eastern Europe, Turkey|The lime for hot dry towns, free of honeydew.
Tilia × europaea|common lime|Malvaceae|20-28|12-16|mOd|mbml|5.5-8|p|-32|lhmmll|-|hm|6,7|9|10|s|eee|a|honeydew of aphids|Garden hybrid|Sprouts at the base year after year.
Tipuana tipu|tipu tree|Fabaceae|12-18|12-18|fSs|lbhl|5.5-8.5|f|-4|hmhhll|-|hl|6,7|9|-|s|eef|s|psyllid, borers|Bolivia, Argentina|Quick wide shade; roots lift paving, sticky drip.
Ulmus minor|field elm|Ulmaceae|16-24|10-15|fOd|lbhh|5.5-8.5|f|-28|hhhmml|-|lm|3|5|10|s|eee|a|Dutch elm disease|Europe|Only kinds proven against elm disease; suckers.
Ulmus parvifolia|lacebark elm|Ulmaceae|10-15|9-13|fVs|lbhm|5-8.5|f|-22|hmmlml|-|lm|9|10|11|s|eee|s|little elm disease|East Asia|Flaking bark; firm enough if pruned while young.
Viburnum treleasei|Azorean viburnum|Viburnaceae|3-6|3-5|mRe|mbml|4.5-7|p|-3|mmllll|-|hh|5,6|9,10|-|c|efn|a|leaf beetle|Macaronesia: Azores|Native small tree of hill woods; fruit asks another kin.
Zelkova serrata|Japanese zelkova|Ulmaceae|15-20|12-16|mVd|lbhm|5.5-8|f|-28|hhmlml|-|lm|4|9|10|s|eee|s|few|Japan, Korea|Vase shape arches over streets; narrow forks want pruning.
Ziziphus jujuba|jujube|Rhamnaceae|6-10|4-7|mId|lbhh|6-8.5|f|-24|hmlmll|t|hm|6|9,10|10|s|ehf|s|few|China|Thorny; edible fruit, bears heat and salt.
`;
